/** What screens are made with. */
export { bootstrapApplication } from '@angular/platform-browser';
export { RouterOutlet } from '@angular/router';
export { FormsModule } from '@angular/forms';

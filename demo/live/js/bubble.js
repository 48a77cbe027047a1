// A chat bubble as its maker ships it: a frame of the maker's own origin, put in by script.
(() => {
  const frame = document.createElement('iframe');
  frame.title = 'Chat with the boathouse';
  frame.src = `${location.protocol}//live-widgets.localhost${location.port ? `:${location.port}` : ''}/widgets/bubble.html`;
  frame.style.cssText = 'position: fixed; right: 18px; bottom: 18px; width: 80px; height: 80px; border: 0;';
  document.body.append(frame);
})();

export {
  ChangeRequest, OverrideBody, PaletteRequest, PublicationRequest, REACH_NAMES, RevisionRequest, ROLES, RoleBody, STATES, SwatchBody, TypedColor, VALUE_KINDS, ValueBody,
} from './requests.js';
export { validateBody, type Validated } from './validate.js';
export { PROBLEM_MEDIA_TYPE, type FieldError, type ProblemDocument } from './problem-document.js';
export type { DraftDocument, RevisionSummary, SiteDocument, SiteSummary } from './responses.js';

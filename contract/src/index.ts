export { DRAFT_FILE_VERSION, DraftFile, readDraftFile, type DraftRead } from './draft-file.js';
export {
  ChangeRequest,
  OverrideBody,
  PaletteBody,
  PaletteRequest,
  BringBackRequest,
  LiveRequest,
  PublicationRequest,
  RevisionRequest,
  RoleBody,
  SwatchBody,
  TypedColor,
} from './requests.js';
export {
  ArrangementRequest,
  ExceptionBody,
  ExceptionsRequest,
  IMPORT_KINDS,
  ImportRequest,
  MergedPart,
  NameRequest,
  SheetOptionsRequest,
  OPENER_ACTS,
  OpenerBody,
  PART_KINDS,
  PartBody,
  PartsRequest,
  SheetOrderBody,
} from './site-requests.js';
export {
  HostingRequest,
  LOOK_STEPS,
  LookedBody,
  LookedRequest,
  RevisionProofRequest,
  SettledRequest,
  type LookStep,
} from './proof-requests.js';
export { ClientRequestBody, ClientRequestsRequest } from './client-requests.js';
export { KitBody, KitRuleBody, type KitDocument } from './kits.js';
export { validateBody, type Validated } from './validate.js';
export { PROBLEM_MEDIA_TYPE, STEP_FAILED, type FieldError, type ProblemDocument } from './problem-document.js';
export type {
  BroughtBackDocument,
  DraftDocument,
  FormerCaptureDocument,
  ImportProgress,
  ImportResult,
  LeftDraftSummary,
  LeftOutFile,
  PageFileDocument,
  PictureSummary,
  RevisionDocument,
  RevisionSummary,
  ServedDocument,
  SiteDocument,
  SiteSummary,
} from './responses.js';
export {
  HandedFieldBody,
  HandedRecordBody,
  HandedRequest,
  SettingsReadRequest,
  SettingsRequest,
  SettingsSheetBody,
} from './settings-requests.js';
export { EqualRowsBody, MainActionBody, PlanRequest, SettledRowBody } from './plan-request.js';
export {
  ARCHIVE_FORMAT,
  ARCHIVE_HEAD,
  ARCHIVE_VERSION,
  ArchiveFormer,
  ArchiveHead,
  ArchiveHistory,
  ArchiveRevision,
  ArchiveStep,
  type ArchiveBasis,
  type SiteArchive,
} from './site-archive.js';
export { ArchiveTrial, ArchiveVariation } from './trial-archive.js';
export {
  CONVERSION_KINDS,
  CountsRequest,
  DecisionRequest,
  MOST_VARIATIONS,
  TrafficRequest,
  TrialRequest,
  TrialStateRequest,
  VariationProofBody,
  VariationRequest,
  VariationSettingsBody,
  type ConversionKind,
} from './trial-requests.js';
export type {
  CountSource,
  TrialCount,
  TrialDecision,
  TrialDocument,
  TrialLook,
  TrialsDocument,
  VariationDocument,
} from './trials.js';
export {
  SightRequest,
  StoredVisitBody,
  VisitBody,
  VisitStepBody,
  type BrowserDocument,
  type SightDocument,
  type VisitDocument,
} from './visits.js';

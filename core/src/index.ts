export { canonicalJson, hashOf, sameJson } from './units/canonical.ts'
export type { Json } from './units/canonical.ts'
export { check, problemLine, problemsOf } from './units/problem.ts'
export type { Problem } from './units/problem.ts'
export { seededRandom } from './units/random.ts'
export type { Random } from './units/random.ts'
export { regions } from './units/region.ts'
export type { Region } from './units/region.ts'
export { formatSeconds } from './units/seconds.ts'

export {
  blankArea,
  blankDevice,
  blankJob,
  blankSignoff,
  blankState,
  blankTest,
  blankZone,
} from './job/blank.ts'
export {
  completeHouseRules,
  defaultHouseRules,
  houseRulesSchema,
  isChoice,
} from './house-rules/house-rules.ts'
export type {
  FigureKey,
  Figures,
  HouseRules,
  RemedyCosts,
  SchoolKey,
  Schools,
} from './house-rules/house-rules.ts'
export { choiceWords, costWords, figureWords, schools } from './house-rules/schools.ts'
export type { School, SchoolChoice } from './house-rules/schools.ts'
export { rulesInForce } from './job/rules-in-force.ts'
export { delayNeeds, entryWays } from './premises/entry-ways.ts'
export type { DelayNeeds, EntryWay } from './premises/entry-ways.ts'
export { removeOpeningOps, removeRoomOps, renameRoomOps } from './premises/house-edits.ts'
export { HOUSE_LIMIT, houseFromKit, readHouse, writeHouse } from './premises/house-words.ts'
export type { HouseLine, HouseReading } from './premises/house-words.ts'
export { houseOf, openingName, paceOf, roomKey } from './premises/house.ts'
export type { House, Walk } from './premises/house.ts'
export { placesOf } from './premises/places.ts'
export type { DevicePlace, MissingFact } from './premises/places.ts'
export { emptyDocument, jobInfo, nextOrder, recordOf, recordsOf } from './job/document.ts'
export type { JobDocument } from './job/document.ts'
export {
  applyOps,
  authorityProblems,
  fieldProblems,
  handedIn,
  invertOps,
  isEvidence,
  isEvidenceEdit,
  jobKernel,
  makeEdit,
  partOps,
  planUndo,
  readEdit,
  recordProblems,
  replay,
  stamped,
  takeNews,
  takeRefusal,
  typeOfId,
  undoStacks,
  upgraded,
} from './job/edit.ts'
export type {
  ApplyResult,
  Conflict,
  Edit,
  JournalEntry,
  Op,
  PendingEdit,
  Replica,
  TrayItem,
  UndoPlan,
  UndoStacks,
} from './job/edit.ts'
export {
  deviceSerial,
  countsHere,
  enrolmentOf,
  enrolments,
  isEnrolled,
  knownBy,
  learnedSerial,
  NO_STICKER,
  UNCONFIRMED,
  waitsToBeSent,
  withoutSecond,
} from './job/enrolment.ts'
export type { Enrolment, KnownBy } from './job/enrolment.ts'
export { asItIs, correctedIds, evidenceOf, freshEvidence } from './job/evidence.ts'
export type { EvidenceType } from './job/evidence.ts'
export { editShape, withMaker } from './records/edit.ts'
export { madeBy } from './records/fields.ts'
export type { Made, Person } from './records/fields.ts'
export { lastTouch, noUndo, UPGRADE } from './records/journal.ts'
export type { ReadEdit } from './records/kernel.ts'
export { clearTray, openReplica, shelve } from './records/replica.ts'
export type { TrayReason } from './records/replica.ts'
export { hasRight, reaches, rights, roles } from './records/roles.ts'
export type { Right, Role } from './records/roles.ts'
export type { Clocks, Sender } from './records/authority.ts'
export { NewerShape, upgradeOps } from './records/upgrade.ts'
export { copyName, newAirSeed, planCopyOps, sourceProblems } from './job/practice.ts'
export { jobRecords, openingUses, pinId, proofKinds, roomKinds, SCHEMA, uses } from './job/records.ts'
export type {
  Area,
  AsItWas,
  Departure,
  Device,
  FixedRules,
  Heard,
  JobInfo,
  JobRecord,
  Opening,
  OpeningUse,
  Pin,
  Receiver,
  RecordType,
  Room,
  RoomKind,
  Sight,
  Signoff,
  StateEnd,
  SystemUser,
  TemporaryState,
  Terminal,
  TestResult,
  Use,
  Waiver,
  WaiverEnd,
  Way,
  Zone,
} from './job/records.ts'
export { serialsOf } from './job/serials.ts'

export { Catalogue } from './catalogue/catalogue.ts'
export { describeEntry } from './catalogue/describe.ts'
export type { EntryLine } from './catalogue/describe.ts'
export { comparePack, PACK_LIMIT, packJsonSchema, readPack, writePack } from './catalogue/pack.ts'
export { keepEntry, PACK_FORMAT, readKept, writtenOf } from './catalogue/written.ts'
export type { KeptEntry, WrittenEntry } from './catalogue/written.ts'
export type { PackChange, PackResult } from './catalogue/pack.ts'
export { deviceClasses, entrySchema, events, kinds, trips, zoneFields } from './catalogue/schema.ts'
export type {
  AlarmKind,
  CatalogueEntry,
  DelayField,
  DeviceClass,
  DeviceEvent,
  DeviceModel,
  EntryKind,
  Family,
  LabelRule,
  LoopEvent,
  PanelModel,
  ReceiverModel,
  ResponseType,
  Trip,
  ZoneField,
} from './catalogue/schema.ts'

export { closureOf } from './catalogue/closure.ts'
export { pinUpdateOps, pinUpdates } from './job/pins.ts'
export type { PinUpdate } from './job/pins.ts'
export { pinOps, startOps } from './job/start.ts'
export { aRecord, fieldWords, titleOf } from './job/titles.ts'
export { presets } from './response/presets.ts'
export type { Limit, Preset } from './response/presets.ts'

export { fitAll, fitCodes, fitPair, fitWith, receiverLoad } from './fit/fit.ts'
export type { Fit, FitCode, FitReason, Verdict } from './fit/fit.ts'
export { rankPanels, systemWithPanel } from './fit/candidates.ts'
export type { PanelChoice } from './fit/candidates.ts'
export { remediesFor, swapOps } from './fit/remedies.ts'
export type { Remedy, RemedyKind, VerdictChange } from './fit/remedies.ts'
export { solveKit, solveWhole } from './fit/solve.ts'
export type { KitSolution, SolveProgress } from './fit/solve.ts'
export { kitSums } from './fit/kit-sums.ts'
export type { BatteryLine, KitSums, Money } from './fit/kit-sums.ts'
export { choosePanelOps, firmwareWhenChosen } from './system/choose-panel.ts'
export { systemOf } from './system/system.ts'
export type { PresentReceiver, System } from './system/system.ts'
export { identify, STICKER_LIMIT } from './identity/identify.ts'
export type { Identified, NotIdentified } from './identity/identify.ts'
export { compareIds, groupId, readSticker } from './identity/sticker.ts'
export type { ComparedCharacter, StickerResult } from './identity/sticker.ts'
export { wiringWords } from './programming/field-values.ts'
export { advise, isLifeSafety, isWayIn, kindOf, needOf, tripWords, whileMoving } from './response/advise.ts'
export type { Advice, Need, Place } from './response/advise.ts'
export {
  bothNumbers,
  decodeDelay,
  delayFieldOf,
  delayKeys,
  delayNames,
  encodeDelay,
  limitOf,
  delaySets,
  wantedDelay,
} from './response/delays.ts'
export type { DelayKey, DelaySet, EncodedDelay } from './response/delays.ts'
export {
  eventWords,
  labelKey,
  labelTrouble,
  libraryEntries,
  makeLabel,
  nearestWords,
} from './zones/labels.ts'
export { newZone, switchesOf, zoneLabel } from './zones/new-zone.ts'
export { eventsToZone } from './catalogue/zone-loops.ts'
export { moveZone } from './zones/move.ts'
export type { ZoneMove } from './zones/move.ts'
export { compareCosts, planCost, planNumbers } from './zones/plan.ts'
export type { NumberPlan, PlanCost, PlanInput, PlanItem } from './zones/plan.ts'
export { numberAll } from './zones/number-all.ts'
export type { NumberingOptions, NumberingPlan, NumberMove } from './zones/number-all.ts'
export {
  keptForWired,
  liveTerminals,
  mappedNumbers,
  numbersFor,
  presentBlocks,
  printNumber,
  rangeWords,
} from './zones/numbers.ts'
export { departureLines, waiverTrouble } from './findings/departures.ts'
export type { DepartureLine } from './findings/departures.ts'
export { findingChanges } from './findings/changes.ts'
export type { FindingChanges } from './findings/changes.ts'
export { judge, stops } from './findings/judge.ts'
export { ruleNamed, ruleOf, rules } from './findings/registry.ts'
export type { JudgeInput } from './findings/context.ts'
export type { Finding, Fix, Rule, Severity } from './findings/finding.ts'
export { JOB_FILE_FORMAT, readJobFile, writeJobFile } from './formats/job-file.ts'
export { JOURNAL_FORMAT, readJournalFile, writeJournalFile } from './formats/journal-file.ts'
export type { JournalFileResult } from './formats/journal-file.ts'
export type { JobFileResult } from './formats/job-file.ts'
export { inventId, transmissions } from './air/air.ts'
export type { Transmission } from './air/air.ts'
export { clashWith, judgeClash, judgeDisplayed, judgeHeard, judgeTyped } from './air/judge.ts'
export type { Displayed, DisplayReading, Judgement } from './air/judge.ts'
export {
  heardRecord,
  isOfLifeSafety,
  loopOps,
  sisterSerial,
  targetOf,
  targetsOf,
  timesHeard,
  wantsConfirming,
} from './air/learn.ts'
export type { HeardFacts, Target } from './air/learn.ts'
export { nextStage, owedList } from './findings/handover.ts'
export type { Owed } from './findings/handover.ts'
export { keypadPresses } from './programming/presses.ts'
export { customerNotes } from './findings/customer-notes.ts'
export { exitWords, keysSwitchedOff, openWords } from './response/setting-words.ts'
export { panelSettings, type PanelSetting, type SettingChoice } from './response/panel-settings.ts'
export { lowerFirst, upperFirst } from './units/words.ts'
export { zoneFieldInfo, type ZoneFieldInfo } from './programming/field-values.ts'
export { programmingSheet, type Sheet } from './programming/sheet.ts'
export type { SheetSection, SheetStep } from './programming/step.ts'
export { removeAreaOps, removeDeviceOps } from './job/removals.ts'
export { servedAreas, serveOps } from './premises/served-areas.ts'
export { modesOf, type ModeTrip } from './response/modes.ts'
export { exitInStay } from './response/delays.ts'
export { moveToAreaOps } from './zones/area-move.ts'
export {
  cautions,
  hints,
  openProofs,
  proofRoute,
  resultProblem,
  settledSubjects,
  testBlocked,
} from './proof/owed.ts'
export type { ProofItem, ProofKey, ProofStop } from './proof/owed.ts'
export { alsoShows, NOT_TRIPPED, proofMethods, proofRules, stationSees } from './proof/table.ts'
export type { ProofKind } from './proof/table.ts'
export { changedSince, PANEL, proofCopy } from './proof/copy.ts'
export {
  openStates,
  openTasks,
  stateAbout,
  stateProblem,
  stateRules,
  stateSubjects,
  stationOnTest,
  TASK_DONE,
} from './proof/states.ts'
export type { StateKind, StateSubject } from './proof/states.ts'
export { proofRecord, signoffRecord } from './proof/records.ts'
export { changedKeying, CODE_SIGNOFF, keyedNow, type Keyed } from './proof/keyed.ts'
export { headingKey, LIST_LIMIT, listColumns, readEquipmentList } from './formats/equipment-list.ts'
export type { EquipmentList, ListColumn, ListRow } from './formats/equipment-list.ts'
export { scheduleColumns, zoneSchedule, zoneScheduleCsv } from './formats/zone-schedule.ts'
export type { ScheduleLine } from './formats/zone-schedule.ts'

export type {
  AccountWire,
  LinkAnswer,
  PeopleAnswer,
  ServiceAnswer,
  SessionsAnswer,
  EditAnswer,
  EditsAnswer,
  JobList,
  JobSummary,
  ListedJob,
  OpenedJob,
  RulesPreview,
  UndoAnswer,
  WireConflict,
} from './wire/wire.ts'

export { canonicalJson, hashOf, sameJson } from './units/canonical.ts'
export type { Json } from './units/canonical.ts'
export { check, problemLine } from './units/problem.ts'
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
export { completeHouseRules, defaultHouseRules, houseRulesSchema } from './house-rules/house-rules.ts'
export type { HouseRules, RemedyCosts, SchoolKey } from './house-rules/house-rules.ts'
export { choiceWords, costWords, figureWords, schools } from './house-rules/schools.ts'

export { rulesInForce } from './job/rules-in-force.ts'
export { contentsOf } from './premises/contents.ts'
export type { OpeningIn, RoomContents } from './premises/contents.ts'
export { delayNeeds, entryWays } from './premises/entry-ways.ts'
export type { EntryWay } from './premises/entry-ways.ts'
export { removeOpeningOps, removeRoomOps, renameRoomOps } from './premises/house-edits.ts'
export { houseFromKit, readHouse, writeHouse } from './premises/house-words.ts'
export type { HouseReading } from './premises/house-words.ts'
export { houseOf, openingName, paceOf } from './premises/house.ts'

export { layHouse } from './premises/layout.ts'
export type { Floor, Link, RoomBox } from './premises/layout.ts'
export { placesOf } from './premises/places.ts'
export type { DevicePlace } from './premises/places.ts'
export { leavesFrom, sightsWith } from './premises/sights.ts'
export { emptyDocument, jobInfo, nextOrder, recordOf, recordsOf } from './job/document.ts'
export type { JobDocument } from './job/document.ts'
export {
  applyOps,
  authorityProblems,
  fieldProblems,
  handedIn,
  invertOps,
  isEvidence,
  makeEdit,
  planUndo,
  readEdit,
  recordProblems,
  replay,
  setOp,
  stamped,
  takeNews,
  takeRefusal,
  typeOfId,
  undoStacks,
  upgraded,
} from './job/edit.ts'
export type { Conflict, Edit, JournalEntry, Op, Replica, TrayItem, UndoStacks } from './job/edit.ts'
export {
  deviceSerial,
  countsHere,
  enrolmentOf,
  isEnrolled,
  knownBy,
  NO_STICKER,
  UNCONFIRMED,
  waitsToBeSent,
  withoutSecond,
} from './job/enrolment.ts'

export { asItIs, evidenceOf, freshEvidence } from './job/evidence.ts'

export { withMaker } from './records/edit.ts'
export { madeBy } from './records/fields.ts'
export type { Made, Person } from './records/fields.ts'
export { lastTouch, noUndo, UPGRADE } from './records/journal.ts'

export { clearTray, openReplica, shelve } from './records/replica.ts'
export type { TrayReason } from './records/replica.ts'
export { hasRight, reaches, rights, roles } from './records/roles.ts'
export type { Right, Role } from './records/roles.ts'
export type { Sender } from './records/authority.ts'
export { NewerShape, upgradeOps } from './records/upgrade.ts'
export { copyName, newAirSeed, planCopyOps, sourceProblems } from './job/practice.ts'
export { jobRecords, linkWords, openingUses, roomKinds, SCHEMA } from './job/records.ts'
export type {
  Area,
  Departure,
  Device,
  FixedRules,
  Heard,
  Tried,
  JobInfo,
  JobRecord,
  RecordType,
  Room,
  Signoff,
  SystemUser,
  TemporaryState,
  Terminal,
  TestResult,
  Inputs,
  Use,
  Waiver,
  Zone,
} from './job/records.ts'
export { serialsOf } from './job/serials.ts'

export { Catalogue } from './catalogue/catalogue.ts'
export { writtenIn } from './units/times.ts'
export {
  describeEntry,
  differingFacts,
  factChanges,
  handlingLines,
  wayWords,
  type FactChange,
} from './catalogue/describe.ts'

export { comparePack, PACK_LIMIT, packJsonSchema, readPack, writePack } from './catalogue/pack.ts'
export { withNeeded } from './catalogue/pointers.ts'
export { keyWords, signatureOf, signedText } from './catalogue/signed.ts'
export type { Signature } from './catalogue/signed.ts'
export { proposedChoices, restingOn, takeChoices, taken } from './catalogue/taking.ts'
export type { TakeChoice } from './catalogue/taking.ts'
export { keepEntry, pricedEntry, readKept, writtenOf, PACK_FORMAT } from './catalogue/written.ts'
export type { KeptEntry, WrittenEntry } from './catalogue/written.ts'
export type { PackChange } from './catalogue/pack.ts'
export { deviceClasses, price } from './catalogue/schema.ts'
export type { Price } from './catalogue/schema.ts'
export type {
  CatalogueEntry,
  DeviceClass,
  DeviceModel,
  LoopEvent,
  EntryKind,
  Family,
  PanelInterface,
  PanelModel,
  ReceiverModel,
  Trip,
} from './catalogue/schema.ts'

export { pinUpdateOps, pinUpdates } from './job/pins.ts'

export { pinOps, startOps } from './job/start.ts'
export { stageKeys, stageOf } from './job/stages.ts'
export type { Stage } from './job/stages.ts'
export { aRecord, fieldWords, titleOf } from './job/titles.ts'
export { presets } from './response/presets.ts'

export { fitAll, fitPair, receiverLoad } from './fit/fit.ts'
export type { Fit, Verdict } from './fit/fit.ts'
export type { FitReason } from './fit/reasons.ts'
export { placeWords } from './findings/words/places.ts'
export { reasonWords } from './findings/words/fit-reasons.ts'
export { rankPanels } from './fit/candidates.ts'
export type { PanelChoice } from './fit/candidates.ts'
export { offerDevices, offerPanels } from './fit/offers.ts'
export { remediesFor } from './fit/remedies.ts'
export type { Remedy } from './fit/remedies.ts'
export { solveKit, solveWhole } from './fit/solve.ts'
export type { KitSolution } from './fit/solve.ts'
export { kitSums } from './fit/kit-sums.ts'
export { choosePanelOps, firmwareWhenChosen } from './response/choose-panel.ts'
export { firstDelays } from './response/first-delays.ts'
export { systemOf } from './system/system.ts'
export type { SystemDevice } from './system/system.ts'

export { identify, STICKER_LIMIT } from './identity/identify.ts'
export type { Identified } from './identity/identify.ts'
export { compareIds, groupId, readSticker } from './identity/sticker.ts'

export { wiringWords } from './memory/zone-cells.ts'
export { isOfLifeSafety, tripWords, whileMoving } from './response/advise.ts'
export { adviseDevice } from './response/advise-device.ts'

export { bothNumbers } from './response/delay-words.ts'
export {
  delayFieldOf,
  delayKeys,
  delayNames,
  encodeDelay,
  limitOf,
  delaySets,
  wantedDelay,
} from './response/delays.ts'

export { moveZone } from './zones/move.ts'
export type { ZoneMove } from './zones/move.ts'

export { numberAll } from './zones/number-all.ts'
export type { NumberingPlan } from './zones/number-all.ts'
export { numbersFor, presentBlocks, printNumber } from './zones/numbers.ts'
export { departureLines, waiverTrouble } from './findings/departures.ts'

export { findingChanges } from './findings/changes.ts'

export { judge, stops } from './findings/judge.ts'
export { ruleOf, rules } from './findings/registry.ts'
export type { JudgeInput } from './findings/context.ts'
export type { Finding, Severity } from './findings/finding.ts'
export { LEAFLET_LIMIT, leafletTrouble, leafletType, leafletTypes, MOST_LEAFLETS } from './formats/leaflet.ts'
export type { LeafletType } from './formats/leaflet.ts'
export { readJobFile, writeJobFile } from './formats/job-file.ts'
export { readJournalFile, writeJournalFile } from './formats/journal-file.ts'
export type { JournalFileResult } from './formats/journal-file.ts'

export { inventId, transmissions } from './air/air.ts'
export type { Transmission } from './air/air.ts'
export { clashWith, judgeClash, judgeDisplayed, judgeHeard, judgeTyped, LOOP_UNTOLD } from './air/judge.ts'
export type { Displayed, Judgement } from './air/judge.ts'
export {
  deletedRecord,
  heardRecord,
  loopOps,
  sisterSerial,
  targetOf,
  targetsOf,
  timesHeard,
  wantsConfirming,
} from './air/learn.ts'
export type { Target } from './air/learn.ts'
export { learningRound, leftOutOf } from './air/round.ts'
export type { RoundBy } from './air/round.ts'
export { fobPass, fobPassRecords } from './air/fob-pass.ts'
export { unfinishedSince } from './proof/unfinished.ts'
export { notHeard, walkRun, whyNotHeard } from './proof/walk.ts'
export type { NotHeardWhy, WalkTrip } from './proof/walk.ts'
export { cleanSignoff, cleanStartOf, CLEAN_REFUSED } from './proof/clean-start.ts'
export type { CleanStep } from './proof/clean-start.ts'
export { wipedAt } from './job/wiped.ts'
export { deviceEvents, hangingOn } from './air/device-events.ts'
export { listeningOf, toldRecord } from './air/told.ts'
export { fileEvidence } from './job/file-evidence.ts'
export { listensFor, listensUntil, toldOpen } from './job/told.ts'
export { helpedIn, ladderOf, rungNames, triedRecord } from './air/ladder.ts'
export type { Helped, LadderRung } from './air/ladder.ts'
export { nextStage, owedList } from './findings/handover.ts'
export type { Owed } from './findings/handover.ts'

export { LEFT_TONIGHT, leftTonight, tonightBlocked, tonightOf } from './findings/tonight.ts'
export { customerNotes } from './findings/customer-notes.ts'
export { keysSwitchedOff } from './response/setting-words.ts'
export { panelSettings } from './response/panel-settings.ts'
export { lowerFirst, upperFirst } from './units/words.ts'

export { programmingSheet } from './programming/sheet.ts'
export { NO_PLACE } from './panel/route.ts'
export { CLEAN_START, panelSheet, WAY_OUT } from './panel/sheet.ts'
export type { PanelSheet, SheetLine, SheetStart } from './panel/sheet.ts'
export { auditFor } from './panel/audit.ts'
export type { Audit, AuditLine, AuditReport, NextDisplay, StandingValue, StandsThere } from './panel/audit.ts'
export { explainFor } from './panel/explain.ts'
export type { Explained, ExplainedAnswer, ExplainStart, KeyEffect } from './panel/explain.ts'
export { lostFor } from './panel/whereabouts.ts'
export { readBackFor } from './panel/read-back.ts'
export type { DisplaySays, ReadBack, ReadBackPlan } from './panel/read-back.ts'
export { planFollows, planTakes, readBackState } from './proof/read-back.ts'
export { readingsOf } from './memory/readings.ts'
export type { LostAnswer, LostAsked, LostPlace } from './panel/whereabouts.ts'
export type { RouteOrder } from './panel/route.ts'
export type { SheetSection } from './programming/step.ts'
export { leftInPanel } from './job/left-in-panel.ts'
export type { LeftInPanel } from './job/left-in-panel.ts'
export { labelTrouble } from './zones/labels.ts'
export { movedLabels, moveDeviceOps } from './zones/device-move.ts'
export type { NewPlace } from './zones/device-move.ts'
export { replaceOps, successorsOf } from './fit/replace.ts'
export { levelWords, receiverAdvice, spotRecord, walkOf } from './fit/spots.ts'
export type { LinkBand, ReceiverPlace, SpotNeed } from './fit/spots.ts'
export { removeAreaOps, removeDeviceOps } from './job/removals.ts'
export { fullSet } from './response/letters.ts'
export { inputsOf, inputsOps } from './zones/inputs.ts'
export { hasInputs } from './catalogue/zone-loops.ts'
export { servedAreas, serveOps } from './premises/served-areas.ts'
export { modesOf, type ModeTrip } from './response/modes.ts'

export { moveToAreaOps } from './zones/area-move.ts'
export { cautions, hints } from './proof/advice.ts'
export { mayBeUnused, openProofs, proofRoute, settledSubjects, testBlocked } from './proof/owed.ts'
export { resultProblem } from './proof/reading.ts'
export type { ProofItem, ProofStop } from './proof/owed.ts'
export type { ProofKey } from './proof/table.ts'
export { alsoShows, proofMethods, proofRules, stationSees } from './proof/table.ts'

export { armedRun, expectedTrip, seenWords, verdictOf } from './proof/armed.ts'
export type { ArmedSetting, Seen } from './proof/armed.ts'
export { homeDelay, homeVerdict, NOT_USED, placesToUnset } from './proof/coming-home.ts'
export type { CameHome, HomeVerdict } from './proof/coming-home.ts'
export { mountNote, mountPoints, PRESS_SECONDS } from './proof/mounting.ts'
export { clocksOf, leftWords } from './proof/clocks.ts'
export type { Clock } from './proof/clocks.ts'
export { changedSince, PANEL } from './proof/copy.ts'
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
export type { StateKind } from './proof/states.ts'
export { proofRecord, signoffRecord } from './proof/records.ts'
export { changedKeying, keyedNow } from './proof/keyed.ts'
export { listColumns, readEquipmentList } from './formats/equipment-list.ts'
export { headingKey, LIST_LIMIT } from './formats/sheet-file.ts'
export { deviceColumns, deviceHeadings, readDeviceList, writeDeviceList } from './formats/device-list.ts'
export type { DeviceColumn, DeviceList, DeviceRow } from './formats/device-list.ts'
export { priceColumns, readPriceList, writePriceList } from './formats/price-list.ts'
export type { PriceColumn, PriceList } from './formats/price-list.ts'
export type { EquipmentList, ListColumn } from './formats/equipment-list.ts'
export { boxLabels, labelLink, labelPapers, labelPlaces, readLabelLink, zoneCard } from './formats/labels.ts'
export type { BoxLabel, LabelPaper } from './formats/labels.ts'
export { scheduleColumns, zoneSchedule, zoneScheduleCsv } from './formats/zone-schedule.ts'

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
  CatalogueAnswer,
  DraftList,
  PackSignatureAnswer,
  RecallsAnswer,
  VersionsAnswer,
  LeafletWire,
  LeafletAnswer,
  OpenedDraft,
  PublishedDraft,
  UndoAnswer,
} from './wire/wire.ts'

export { beginDraft, draftEntry, answerFrom } from './draft/entry.ts'
export {
  actedOut,
  standing,
  tried,
  withShipped,
  type ActedOut,
  type TriedKey,
} from './draft/at-panel/acted-out.ts'
export {
  landingsOf,
  partsOf,
  screenName,
  templateOf,
  type Landing,
  type Mark,
} from './draft/at-panel/display-read.ts'
export {
  cellsOfField,
  cellsOfPointer,
  cellsOfValues,
  fieldCells,
  fieldFrom,
} from './draft/at-panel/field-cells.ts'
export { knownAddresses, usualField } from './draft/at-panel/known-addresses.ts'
export { openPoints, screenMap, untriedKeys } from './draft/at-panel/open-points.ts'
export { alikeKeys, toldAlike, type Alike } from './draft/at-panel/alike.ts'
export { rowed, rowOf, takenAway } from './draft/at-panel/rows.ts'
export { targetAt } from './draft/at-panel/slots.ts'
export {
  couldDecide,
  passedOver,
  toldSeen,
  valuesDecide,
  type Decides,
  type Effect,
  type SeenAfter,
} from './draft/at-panel/seen-move.ts'
export {
  sketchOf,
  toldOps,
  toldScreen,
  withTold,
  type Sketch,
  type SketchScreen,
  type Told,
} from './draft/at-panel/sketch.ts'
export {
  askedKinds,
  cellsAsked,
  cellsFrom,
  cellsOfBits,
  widgetFrom,
  type AskedKind,
} from './draft/at-panel/widget-cells.ts'
export { switchedOn } from './panel/machine.ts'
export { display as panelDisplay } from './panel/display.ts'
export type { Input as PanelInput, PanelState } from './panel/state.ts'
export { correctionBy, figureProblem, figuresSeenAt } from './draft/seen-figure.ts'
export { mergedOps } from './draft/merged-answer.ts'
export { correctionBySeenLoop } from './draft/seen-loop.ts'
export {
  catalogueActInput,
  offeredTo,
  openRecalls,
  standingsOf,
  unofferedNeeds,
  type CatalogueAct,
  type CatalogueActInput,
  type Standing,
} from './catalogue/standing.ts'
export { ASSUMED } from './catalogue/entry-fields.ts'
export { recalledIn } from './job/recalled.ts'
export { sampleJob } from './draft/sample-plan.ts'
export { formProblem } from './draft/form-problem.ts'
export { findDelayRule } from './draft/delay-rule.ts'
export type { Cell, Choice, Form, PlainForm, Question } from './draft/form.ts'
export { isDescribed, questionsOf, type DescribedKind } from './draft/questions.ts'
export {
  answerOps,
  sourceOps,
  answerTo,
  draftInfo,
  draftKernel,
  DRAFT_SCHEMA,
  type Answer,
  type DraftDocument,
  type DraftEdit,
  type DraftJournalEntry,
  type DraftOp,
  type DraftReplica,
} from './draft/records.ts'
export {
  fireChoices,
  hideChoices,
  kindChoices,
  leavingChoices,
  openOf,
  soundChoices,
  tripChoices,
  usualTypes,
  type TypeRow,
} from './draft/response-types.ts'
export { readWordList } from './draft/word-list.ts'
export { findStickerRule, type StickerRule } from './draft/sticker-rule.ts'
export { samplePlan } from './draft/sample-plan.ts'
export { heardBy, triedWithPanels } from './draft/try-out.ts'

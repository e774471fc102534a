import type { Schemas } from './client'

// Names for the generated types that the interface speaks of.
export type Design = Schemas['Design']
export type Brief = Schemas['Brief']
export type Bay = Schemas['Bay']
export type BoxKeepOut = Schemas['KeepOut']
export type KeepOut = Schemas['KeepOut'] | Schemas['RoundKeepOut'] | Schemas['SlopeKeepOut'] | Schemas['ScanKeepOut']
export type Opening = Schemas['Opening']
export type Clearance = Schemas['Clearance']
export type BoxShell = Schemas['BoxShell']
export type ProfileShell = Schemas['ProfileShell']
export type CylinderShell = Schemas['CylinderShell']
export type Shell = BoxShell | ProfileShell | CylinderShell
export type Corner = Schemas['Corner']
export type Feature =
  | Schemas['Well']
  | Schemas['Sump']
  | Schemas['Relief']
  | Schemas['RoofStep']
  | Schemas['Partition']
  | Schemas['Baffle']
  | Schemas['Pot']
export type Port = Schemas['Port']
export type Cut = Schemas['Cut']
export type ViewShape = Schemas['View']
export type Drained = Schemas['Drained']
export type Remainder = Schemas['Remainder']
export type Scan = Schemas['ScanOut']
export type SheetScheme = Schemas['SheetScheme']
export type Evaluation = Schemas['Evaluation']
/** What the drawing shows of a tank: its bodies and views, and what lies in them. */
export type Shape = Schemas['Geometry'] & {
  cuts: Cut[]
  features: Schemas['FeatureShape'][]
  ports: Schemas['PortPlace'][]
}
export type Block = Schemas['Block']
export type Gap = Schemas['Gap']
export type Figures = Schemas['Figures']
export type Finding = Schemas['Finding']
export type Remedy = Schemas['Remedy']
export type Change = Schemas['Change']
export type Panel = Schemas['Panel']
export type PanelEdge = Schemas['PanelEdge']
export type FlatPart = Schemas['FlatPart']
export type Fill = Schemas['Fill']
export type Attitude = Required<Schemas['Attitude']>
export type Words = Schemas['Words']
export type DemandCase = Schemas['DemandCase']
export type Demand = Schemas['Demand']
export type FittedPump = Schemas['FittedPump']
export type Pump = Schemas['Pump']
export type Surge = Schemas['Surge']
export type CardRule = Schemas['CardRule']
export type PortPart = Schemas['PortPart']
export type FillRun = Schemas['FillRun']
export type Sender = Schemas['Sender']
export type SwingArm = Schemas['SwingArm']
export type SenderPart = Schemas['SenderPart']
export type SensedBy = Sender['action']
export type SenderReading = Schemas['Reading']
export type Calibration = Schemas['CalibrationOut']
export type Slosh = Design['slosh']
export type RunShown = Schemas['RunShown']
export type Lap = Schemas['LapOut']
export type StarvationMap = Schemas['StarvationMap']
export type StationMark = Schemas['StationState']['state']
export type Session = Schemas['SessionOut']
export type Units = Session['units']
export type Patch = Record<string, unknown>

export type Axis = 'x' | 'y' | 'z'
export const AXES: Axis[] = ['x', 'y', 'z']
export type SizeName = 'length_mm' | 'width_mm' | 'height_mm'
export const SIZE: Record<Axis, SizeName> = { x: 'length_mm', y: 'width_mm', z: 'height_mm' }
export type PlaceName = 'x_mm' | 'y_mm' | 'z_mm'
export const PLACE: Record<Axis, PlaceName> = { x: 'x_mm', y: 'y_mm', z: 'z_mm' }
export type Entry = Schemas['Sending']['entries'][number]
export type LogRow = Schemas['LogRow']
export type Operation = Required<Schemas['Operation']>
export type OperationState = Omit<Schemas['OperationState'], 'operation'> & { operation: Operation }
export type Picture = Omit<Schemas['PhotoOut'], 'of'> & { of: Required<Schemas['Picture']> }
/** How far a tank is, and what was written last. */
export type Build = Omit<Schemas['BuildOut'], 'state' | 'photos'> & {
  state: Omit<Schemas['BuildState'], 'operations'> & { operations: OperationState[] }
  photos: Picture[]
}
export type GateState = Schemas['GateState']
export type ConditionState = Schemas['ConditionState']
export type Condition = ConditionState['condition']
export type CellProof = Schemas['CellProof']
export type ProofRound = Schemas['Round']
export type CellPlan = Schemas['CellPlan']
export type WalkSeam = Schemas['WalkSeam']
export type SeriesResult = Schemas['SeriesResult']
export type TestReadings = Schemas['ReadingsOut']
export type Practice = Schemas['PracticeOut']
export type ProofMethod = Schemas['ProofBegun']['method']
export type Mount = Design['mount']
export type Strap = Mount['straps'][number]
export type Anchor = Strap['low']
export type Foot = Mount['feet'][number]
export type Stop = Mount['stops'][number]
export type Bolting = Foot['bolts']
export type Structure = Foot['structure']
export type StrapPath = Schemas['StrapPath']
export type Loads = Schemas['Loads']
export type LoadCase = Schemas['LoadCase']
export type MountCheck = Schemas['MountCheck']
export type BoltRow = Schemas['BoltRow']
export type WaySearch = Schemas['WaySearchOut']
export type WayIn = Schemas['WayIn']
export type KeptVehicle = Schemas['VehicleOut']
export type Vehicle = KeptVehicle['vehicle']
export type VehiclePart = Vehicle['parts'][number]
export type VehiclePanel = Vehicle['panels'][number]
export type PanelGap = VehiclePanel['gaps'][number]
export type VehicleShown = Schemas['VehicleShown']
export type Bracket = Mount['brackets'][number]
export type NewWork = Mount['new_work'][number]
export type StructureCut = Mount['cuts'][number]
export type FillerRoute = NonNullable<Mount['filler']>
export type Bearer = Mount['bearers'][number]

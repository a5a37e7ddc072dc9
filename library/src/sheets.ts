import afterFlight from "../parts/after-flight.json";
import afterMaintenance from "../parts/after-maintenance.json";
import airbrake from "../parts/airbrake.json";
import airbrakeControl from "../parts/airbrake-control.json";
import alternateAir from "../parts/alternate-air.json";
import alternateStatic from "../parts/alternate-static.json";
import altimeter from "../parts/altimeter.json";
import annunciators from "../parts/annunciators.json";
import antennas from "../parts/antennas.json";
import autopilot from "../parts/autopilot.json";
import baggageDoor from "../parts/baggage-door.json";
import ballisticParachute from "../parts/ballistic-parachute.json";
import bellyDrain from "../parts/belly-drain.json";
import boarding from "../parts/boarding.json";
import cabin from "../parts/cabin.json";
import canopyJettison from "../parts/canopy-jettison.json";
import carburettorHeat from "../parts/carburettor-heat.json";
import chocks from "../parts/chocks.json";
import choke from "../parts/choke.json";
import compass from "../parts/compass.json";
import controlLock from "../parts/control-lock.json";
import controlSurface from "../parts/control-surface.json";
import controls from "../parts/controls.json";
import cowlFlaps from "../parts/cowl-flaps.json";
import cowling from "../parts/cowling.json";
import cowlingPlugs from "../parts/cowling-plugs.json";
import crossFeed from "../parts/cross-feed.json";
import cylinderHeads from "../parts/cylinder-heads.json";
import dailyInspection from "../parts/daily-inspection.json";
import dayOnly from "../parts/day-only.json";
import discBrake from "../parts/disc-brake.json";
import displays from "../parts/displays.json";
import doorAndSteps from "../parts/door-and-steps.json";
import dust from "../parts/dust.json";
import electricTrim from "../parts/electric-trim.json";
import electricalSystem from "../parts/electrical-system.json";
import emergencyBeacon from "../parts/emergency-beacon.json";
import emergencyWindow from "../parts/emergency-window.json";
import engineBay from "../parts/engine-bay.json";
import engineGauges from "../parts/engine-gauges.json";
import engineGeneral from "../parts/engine-general.json";
import engineNacelle from "../parts/engine-nacelle.json";
import extinguisher from "../parts/extinguisher.json";
import fabricFuselage from "../parts/fabric-fuselage.json";
import fabricWing from "../parts/fabric-wing.json";
import flap from "../parts/flap.json";
import flapControl from "../parts/flap-control.json";
import fuelDrain from "../parts/fuel-drain.json";
import fuelGauge from "../parts/fuel-gauge.json";
import fuelSelector from "../parts/fuel-selector.json";
import fuelTab from "../parts/fuel-tab.json";
import fuelTank from "../parts/fuel-tank.json";
import fuselageSide from "../parts/fuselage-side.json";
import gearSystem from "../parts/gear-system.json";
import gliderControls from "../parts/glider-controls.json";
import gliderFuselage from "../parts/glider-fuselage.json";
import gliderLaunch from "../parts/glider-launch.json";
import gliderLoading from "../parts/glider-loading.json";
import gliderPanel from "../parts/glider-panel.json";
import gliderTailplane from "../parts/glider-tailplane.json";
import gliderWing from "../parts/glider-wing.json";
import gps from "../parts/gps.json";
import ignitionAndStart from "../parts/ignition-and-start.json";
import inductionFilter from "../parts/induction-filter.json";
import instrumentScan from "../parts/instrument-scan.json";
import instruments from "../parts/instruments.json";
import landingLight from "../parts/landing-light.json";
import leg from "../parts/leg.json";
import lights from "../parts/lights.json";
import lineUp from "../parts/line-up.json";
import magnetos from "../parts/magnetos.json";
import magnetosOfOneEngine from "../parts/magnetos-of-one-engine.json";
import mixture from "../parts/mixture.json";
import nightFlight from "../parts/night-flight.json";
import noseLockerAndHeater from "../parts/nose-locker-and-heater.json";
import noseSteering from "../parts/nose-steering.json";
import oil from "../parts/oil.json";
import oilOfOneEngine from "../parts/oil-of-one-engine.json";
import oleo from "../parts/oleo.json";
import papers from "../parts/papers.json";
import parachutesWorn from "../parts/parachutes-worn.json";
import parkedOutside from "../parts/parked-outside.json";
import pitot from "../parts/pitot.json";
import primer from "../parts/primer.json";
import propeller from "../parts/propeller.json";
import propellerControl from "../parts/propeller-control.json";
import retractingLeg from "../parts/retracting-leg.json";
import riggedWings from "../parts/rigged-wings.json";
import rudderLock from "../parts/rudder-lock.json";
import runUp from "../parts/run-up.json";
import runUpOfOneEngine from "../parts/run-up-of-one-engine.json";
import springNoseLeg from "../parts/spring-nose-leg.json";
import stallHeat from "../parts/stall-heat.json";
import stallVane from "../parts/stall-vane.json";
import staticDrain from "../parts/static-drain.json";
import staticPort from "../parts/static-port.json";
import strut from "../parts/strut.json";
import suction from "../parts/suction.json";
import tail from "../parts/tail.json";
import tailLight from "../parts/tail-light.json";
import tailWheel from "../parts/tail-wheel.json";
import tailWheelLock from "../parts/tail-wheel-lock.json";
import tailWires from "../parts/tail-wires.json";
import takeOff from "../parts/take-off.json";
import tankVent from "../parts/tank-vent.json";
import taxiInstruments from "../parts/taxi-instruments.json";
import tipLight from "../parts/tip-light.json";
import tipTank from "../parts/tip-tank.json";
import torqueLink from "../parts/torque-link.json";
import transponder from "../parts/transponder.json";
import trim from "../parts/trim.json";
import trimTab from "../parts/trim-tab.json";
import twoEngines from "../parts/two-engines.json";
import voltage from "../parts/voltage.json";
import vorReceivers from "../parts/vor-receivers.json";
import wheel from "../parts/wheel.json";
import wheelBrakes from "../parts/wheel-brakes.json";
import wheelFairing from "../parts/wheel-fairing.json";
import wholeAircraft from "../parts/whole-aircraft.json";
import windscreenAndDoor from "../parts/windscreen-and-door.json";
import wing from "../parts/wing.json";
import wingFold from "../parts/wing-fold.json";
import wingFoldCommon from "../parts/wing-fold-common.json";
import wingPin from "../parts/wing-pin.json";

/** Every part sheet by file name. Written by `npm run schemas`. */
export const SHEETS: Readonly<Record<string, unknown>> = {
  "after-flight": afterFlight,
  "after-maintenance": afterMaintenance,
  airbrake,
  "airbrake-control": airbrakeControl,
  "alternate-air": alternateAir,
  "alternate-static": alternateStatic,
  altimeter,
  annunciators,
  antennas,
  autopilot,
  "baggage-door": baggageDoor,
  "ballistic-parachute": ballisticParachute,
  "belly-drain": bellyDrain,
  boarding,
  cabin,
  "canopy-jettison": canopyJettison,
  "carburettor-heat": carburettorHeat,
  chocks,
  choke,
  compass,
  "control-lock": controlLock,
  "control-surface": controlSurface,
  controls,
  "cowl-flaps": cowlFlaps,
  cowling,
  "cowling-plugs": cowlingPlugs,
  "cross-feed": crossFeed,
  "cylinder-heads": cylinderHeads,
  "daily-inspection": dailyInspection,
  "day-only": dayOnly,
  "disc-brake": discBrake,
  displays,
  "door-and-steps": doorAndSteps,
  dust,
  "electric-trim": electricTrim,
  "electrical-system": electricalSystem,
  "emergency-beacon": emergencyBeacon,
  "emergency-window": emergencyWindow,
  "engine-bay": engineBay,
  "engine-gauges": engineGauges,
  "engine-general": engineGeneral,
  "engine-nacelle": engineNacelle,
  extinguisher,
  "fabric-fuselage": fabricFuselage,
  "fabric-wing": fabricWing,
  flap,
  "flap-control": flapControl,
  "fuel-drain": fuelDrain,
  "fuel-gauge": fuelGauge,
  "fuel-selector": fuelSelector,
  "fuel-tab": fuelTab,
  "fuel-tank": fuelTank,
  "fuselage-side": fuselageSide,
  "gear-system": gearSystem,
  "glider-controls": gliderControls,
  "glider-fuselage": gliderFuselage,
  "glider-launch": gliderLaunch,
  "glider-loading": gliderLoading,
  "glider-panel": gliderPanel,
  "glider-tailplane": gliderTailplane,
  "glider-wing": gliderWing,
  gps,
  "ignition-and-start": ignitionAndStart,
  "induction-filter": inductionFilter,
  "instrument-scan": instrumentScan,
  instruments,
  "landing-light": landingLight,
  leg,
  lights,
  "line-up": lineUp,
  magnetos,
  "magnetos-of-one-engine": magnetosOfOneEngine,
  mixture,
  "night-flight": nightFlight,
  "nose-locker-and-heater": noseLockerAndHeater,
  "nose-steering": noseSteering,
  oil,
  "oil-of-one-engine": oilOfOneEngine,
  oleo,
  papers,
  "parachutes-worn": parachutesWorn,
  "parked-outside": parkedOutside,
  pitot,
  primer,
  propeller,
  "propeller-control": propellerControl,
  "retracting-leg": retractingLeg,
  "rigged-wings": riggedWings,
  "rudder-lock": rudderLock,
  "run-up": runUp,
  "run-up-of-one-engine": runUpOfOneEngine,
  "spring-nose-leg": springNoseLeg,
  "stall-heat": stallHeat,
  "stall-vane": stallVane,
  "static-drain": staticDrain,
  "static-port": staticPort,
  strut,
  suction,
  tail,
  "tail-light": tailLight,
  "tail-wheel": tailWheel,
  "tail-wheel-lock": tailWheelLock,
  "tail-wires": tailWires,
  "take-off": takeOff,
  "tank-vent": tankVent,
  "taxi-instruments": taxiInstruments,
  "tip-light": tipLight,
  "tip-tank": tipTank,
  "torque-link": torqueLink,
  transponder,
  trim,
  "trim-tab": trimTab,
  "two-engines": twoEngines,
  voltage,
  "vor-receivers": vorReceivers,
  wheel,
  "wheel-brakes": wheelBrakes,
  "wheel-fairing": wheelFairing,
  "whole-aircraft": wholeAircraft,
  "windscreen-and-door": windscreenAndDoor,
  wing,
  "wing-fold": wingFold,
  "wing-fold-common": wingFoldCommon,
  "wing-pin": wingPin,
};

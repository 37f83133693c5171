//! Every default of this program in one place, with its reason. A figure that rests on one
//! is marked as assumed, and the person can type their own.
//!
//! Not here: limits of what can be typed (they are in `document::check`), and steps of sweeps.

use derecho_core::measure::{Force, Length, Mass, SpringRate, Stress};
use serde::Serialize;
use utoipa::ToSchema;

use crate::message::Message;

/// A figure the drawing or a result rests on that nobody typed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Assumption {
    /// The field that would replace it.
    pub pointer: String,
    /// What is assumed.
    pub says: Message,
    /// Whether figures rest on it, or the drawing alone.
    pub drawing_only: bool,
}

// Readings

/// What counts as centred where the rig leaves it empty (default of this program).
pub const TOLERANCE: Length = Length::from_mm(3.0);

/// Usual spread of repeats where the rig leaves it empty (default of this program).
pub const SPREAD: Length = Length::from_mm(1.0);

/// A range of repeats beyond so many usual spreads raises a second thought. Four
/// repeats range over twice their spread; beyond four times is one in a hundred.
pub const SUSPICIOUS_SPREADS: f64 = 4.0;

/// Sides of the frame that differ by more than this show a leaning axle.
pub const LEAN_WORTH_ASKING: Length = Length::from_mm(6.0);

/// Fewer repeats than this on one side are asked for again.
pub const REPEATS_WANTED: usize = 3;

/// Frame heights that differ by more than this between two sheets are another height:
/// what a person reads twice off one mark agrees within it.
pub const HEIGHT_CHANGED: Length = Length::from_mm(5.0);

// The rig

pub use crate::document::heights::{BUMP, DROOP};

/// Between the tyre contact centres, mm: a usual truck.
pub const TRACK: f64 = 1560.0;

/// Outside diameter of the tyres, mm.
pub const TYRE_DIAMETER: f64 = crate::document::heights::TYRE_DIAMETER.to_mm();

/// Width of the tyres, mm.
pub const TYRE_WIDTH: f64 = 265.0;

/// Outside width of the frame over its rails, mm.
pub const FRAME_WIDTH: f64 = 820.0;

/// Height of the axle eye above the axle centre, where no bolt height is typed.
pub const AXLE_EYE_ABOVE: Length = Length::from_mm(60.0);

/// Underside of the rail above the frame eye in the drawing.
pub const RAIL_ABOVE_EYE: Length = Length::from_mm(45.0);

/// Half of an axle tube.
pub const AXLE_TUBE_RADIUS: f64 = 46.0;

// The bar

/// What a tape laid on two eyes is good to, plus or minus (default of this program).
pub const BOLT_HEIGHT_GOOD_TO: Length = Length::from_mm(1.5);

/// What a finder is good to, plus or minus (default of this program).
pub const FINDER_GOOD_TO_DEGREES: f64 = 0.2;

/// What a plumb line to a chalked centreline is good to (default of this program).
pub const PLUMBED: Length = Length::from_mm(3.0);

/// Standard uncertainty of where an eye that is not where it was planned was found to sit (default of this program): a tape
/// to a bolt's middle, or an angle's last digit, is worth a millimetre.
pub const FOUND_PLACE_GOOD_TO: Length = Length::from_mm(1.0);

/// A set length this near to the wanted one is the wanted one: half a millimetre.
pub const AS_WANTED: Length = Length::from_mm(0.5);

/// What the bar's own length is good to, plus or minus (default of this program).
pub const BAR_LENGTH_GOOD_TO: Length = Length::from_mm(1.5);

/// Standard uncertainty of an offset that nobody has read yet: three repeats either side, frame to hub (default of this
/// program).
pub const OFFSET_GOOD_TO: Length = Length::from_mm(0.9);

/// What turns are counted to, as a standard uncertainty in turns: half a flat (default of this program).
pub const TURNS_GOOD_TO: f64 = 1.0 / 12.0;

/// Diameter of a track bar nobody measured, mm.
pub const BAR_DIAMETER: f64 = 32.0;

// The bracket

/// A brace that would carry more than so many times the bar's load is no brace one counts on: up to twice that it
/// depends on how much it gives, beyond it holds the bracket too near its root (default of this program).
pub const BRACE_CARRIES: f64 = 3.0;

/// Ears and what fills them agree within this.
pub const EAR_SLACK: Length = Length::from_mm(0.8);

/// Brackets are parallel within this.
pub const PARALLEL_DEGREES: f64 = 1.0;

/// A Y-link's axle that points to one side by less is square: some 4 mm of wheelbase (default of this program).
pub const SQUARE_DEGREES: f64 = 0.15;

/// Pinion may change by so much in a conversion.
pub const PINION_DEGREES: f64 = 3.0;

/// More than this between an eye's bolt and its hole knocks as the bar is pushed and pulled, whatever clamps it.
pub const EYE_PLAY: Length = Length::from_mm(0.3);

/// Bar and drag link leaning further apart than the first are told, than the second they are called bad, in degrees: an axle
/// that swings 12 mm to the side while the link swings as it likes steers the wheels about that much.
pub const LINK_APART_DEGREES: (f64, f64) = (1.5, 3.0);

/// Steering by itself over a bump of 50 mm: told from the first on, bad from the second, in degrees. Half a degree is what
/// a toe gauge is good to.
pub const BUMP_STEER_DEGREES: (f64, f64) = (0.5, 1.0);

/// A track bar that stands less than so many times its load is told, though it holds.
pub const BAR_MARGIN_TOLD: f64 = 1.25;

/// A brisk turn, as a share of the weight.
pub const TURN: f64 = 0.5;

// Arms and steering

/// Two ends nearer than this are one place.
pub const COINCIDENT: f64 = 20.0;

/// What an arm's own length is good to, plus or minus (default of this program).
pub const ARM_LENGTH_GOOD_TO: f64 = 2.0;

/// Diameter of an arm nobody measured, mm.
pub const ARM_DIAMETER: f64 = 45.0;

/// Between a radius arm's two axle bushes, mm.
pub const BUSH_SPACING: f64 = 160.0;

/// The share of a leaf spring's front half that a link in its place is long.
pub const SPRING_AS_LINK: f64 = 0.75;

/// Diameter of a drag link nobody measured, mm.
pub const DRAG_LINK_DIAMETER: f64 = 30.0;
/// Room that a first bracket on the frame has to everything on the axle at full bump: twice the usual clearance, for a bracket
/// that is welded once (default of this program).
pub const FIRST_BRACKET_ROOM: Length = Length::from_mm(25.4);
/// Outside diameter of a tie rod, mm.
pub const TIE_ROD_DIAMETER: f64 = 32.0;

/// Half the thickness of a steering arm, which nobody is asked for: nothing is called clear of it, mm.
pub const STEERING_ARM_RADIUS: f64 = 20.0;

/// How far inside the middle of the tyre an axle's tube ends, mm.
pub const TUBE_INSIDE: f64 = 120.0;

/// Kingpin inside the middle of the tyre, where nobody measured.
pub const KINGPIN_INSIDE: f64 = 90.0;

// The vehicle

/// Weight on an axle nobody put on a scale (default of this program).
pub const AXLE_WEIGHT: Force = Mass::from_kg(1100.0).weight();

/// Weight on the other axle (default of this program).
pub const OTHER_AXLE_WEIGHT: Force = Mass::from_kg(1000.0).weight();

/// Weight of an axle itself (default of this program).
pub const UNSPRUNG_WEIGHT: Force = Mass::from_kg(180.0).weight();

/// Roll centre above hub height where the mechanism does not close (default of this program).
pub const ROLL_CENTRE_ABOVE_HUB: Length = Length::from_mm(100.0);

/// Centre of gravity above hub height (default of this program).
pub const GRAVITY_ABOVE_HUB: Length = Length::from_mm(350.0);

/// What that is good to, plus or minus.
pub const GRAVITY_GOOD_TO: Length = Length::from_mm(80.0);

/// What a height somebody measured is good to, where they did not say.
pub const MEASURED_GRAVITY_GOOD_TO: Length = Length::from_mm(25.0);

/// Rate of a spring (default of this program).
pub const SPRING: SpringRate = SpringRate::from_n_per_mm(35.0);

/// Between the springs, as a share of the track (default of this program).
pub const SPRING_SPACING_SHARE: f64 = 0.62;

/// A load on the roof above the floor (default of this program).
pub const ROOF: Length = Length::from_mm(1900.0);

// The sway bar

/// Travel that must be left to a straight or folded line (default of this program).
pub const LEAST_LEFT: Length = Length::from_mm(12.7);

/// γ outside this fails (default of this program).
pub const FAIL_DEGREES: (f64, f64) = (20.0, 160.0);

/// γ outside this is a lot (default of this program).
pub const WARN_DEGREES: (f64, f64) = (30.0, 150.0);

/// Thread that has to be in a link's rod, in diameters (default of this program).
pub const THREAD_IN: f64 = 1.5;

/// Shear stress a spring-steel bar takes (default of this program).
pub const ALLOWABLE_SHEAR: Stress = Stress::from_mpa(700.0);

/// Rod of an arm or link nobody measured (default of this program).
pub const SWAY_ROD: Length = Length::from_mm(25.0);

/// A rail is as thick as this, so that two rounded edges stand for its side (default of this program).
pub const RAIL_WIDTH: f64 = 60.0;

/// Height of a frame rail nobody measured.
pub const RAIL_HEIGHT: Length = Length::from_mm(100.0);

/// How far fore and aft of the bar a rail is looked at.
pub const RAIL_REACH: f64 = 500.0;

/// Steering either way at a front axle (default of this program), degrees.
pub const STEERING_LOCK_DEGREES: f64 = 35.0;

/// A soft torsion bar's share of the bar there is, where none was picked, and a two-rate bar's soft
/// setting (defaults of this program).
pub const SOFT_SHARE: f64 = 0.5;

/// The same of the soft rate of a two-rate bar.
pub const TWO_RATE_SHARE: f64 = 0.3;

/// Rate of a rubber bush that holds a sway bar, across it (default of this program): soft enough to take a tenth of a usual
/// bar's rate.
pub const RUBBER_BUSH: SpringRate = SpringRate::from_n_per_mm(1500.0);

/// The same of polyurethane, four times as stiff (default of this program).
pub const POLYURETHANE_BUSH: SpringRate = SpringRate::from_n_per_mm(6000.0);

/// Between the bushes that hold a sway bar, over the length that twists (default of this program): they sit inside its
/// bends.
pub const BUSH_SPACING_SHARE: f64 = 0.8;

/// Sideways in a hard bend (default of this program), g: about what a tall vehicle on all-terrain tires holds before it
/// slides.
pub const HARD_BEND_G: f64 = 0.7;

/// A pin goes in while its eye is so far off: its own chamfer (default of this program).
pub const PIN_CHAMFER: Length = Length::from_mm(3.0);

/// What one hand pulls (default of this program).
pub const HAND: Force = Force::from_n(130.0);

/// A floor that leans less than this counts as level, degrees.
pub const LEVEL_DEGREES: f64 = 0.3;

/// Arm and stroke are alike within this share of the stroke (default of this program).
pub const LIKE_STROKE: f64 = 0.15;

/// Corners that differ by less say nothing.
pub const UNEVEN: Force = Force::from_n(300.0);

/// A bar nobody measured (defaults of this program).
pub const SWAY_BAR: Length = Length::from_mm(25.0);

/// A sway bar at a front axle that nobody entered: stock ones are about an inch thick there (default of this program).
pub const FRONT_SWAY_BAR: Length = Length::from_mm(27.0);
/// The same at a rear axle, where they are thinner (default of this program).
pub const REAR_SWAY_BAR: Length = Length::from_mm(20.0);

/// Its arm, from the bar straight back to the link (default of this program).
pub const SWAY_ARM: Length = Length::from_mm(250.0);

/// Length of a sway bar that twists, where nobody measured it.
pub const SWAY_ACTIVE: Length = Length::from_mm(900.0);

/// Lean either way over which rates are taken, degrees.
pub const LEAN: f64 = 0.5;

/// Half of a bolt's head (default of this program).
pub const BOLT_HEAD: f64 = 10.0;

/// From this angle of the bar on a bracket is urged: a length alone would leave about a tenth of
/// every bump as sideways motion.
pub const STEEP_FROM_DEGREES: f64 = 5.0;

/// More sideways swing over the travel than this is felt as side-stepping.
pub const SWING_LIMIT: Length = Length::from_mm(19.05);

/// Under this angle a bar is as good as level: no bracket makes it better that a person feels.
pub const LEVEL_ENOUGH_DEGREES: f64 = 1.0;

/// Standard uncertainty of a hub's face or a drum's edge against a feature of the frame.
pub const HUB_FEATURE: Length = Length::from_mm(0.8);

/// The same of a straightedge on the sidewall: tyres are not round to better.
pub const SIDEWALL_FEATURE: Length = Length::from_mm(1.5);

/// The same from the body: it sits crooked on its mounts.
pub const BODY_FEATURE: Length = Length::from_mm(3.0);

/// The same of a feature of one's own that nothing was said of.
pub const OWN_FEATURE: Length = Length::from_mm(1.5);

/// A finder laid along the bar afterwards reads as predicted within this, degrees.
pub const ANGLE_AS_PREDICTED_DEGREES: f64 = 0.7;
/// A sway link measured eye to eye is as it was to be set within this: a sixteenth of an inch.
pub const LINK_AS_PREDICTED: Length = Length::from_mm(1.6);
/// How far past the stops a cycle should still be clear: half an inch.
pub const PAST_THE_STOPS: Length = Length::from_mm(12.7);

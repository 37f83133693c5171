//! From what a person measured to the mechanism that is solved: points, links, joints,
//! obstacles, with what had to be assumed and what does not agree. `reader` reads points, `frame`
//! fits a setup, `words` makes the sentences. Not here: solving it (core), and which
//! eyes and length are meant (`setups`).

mod arms;
mod bar;
pub(crate) mod bodies;
pub(crate) mod empty_fields;
mod frame;
pub mod message;
pub mod named;
mod obstacles;
mod reader;
pub(crate) mod sway_linkage;
pub mod weights;

use crate::assembly::message::AssemblyMessage;
use crate::defaults;
use crate::document::check::{FieldError, asks};
use crate::message::Message;
use glam::DVec3;

pub(crate) use self::bar::SolvedBar;
pub use self::frame::Missing;
use self::frame::{Fitted, SharedSetup};
use self::reader::PointReader;
use crate::defaults::Assumption;
use crate::document::hardpoints::TieRodForm;
use crate::document::{AxleLocation, BarId, DragLinkId, FittedPart, Job, LengthAim, Rig, heights, length_of};
use crate::setups::moves::{self, EyeMoves};
use crate::setups::{Setups, SwaySetups};
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Angle, Length, Side, TapeEntry};
use derecho_core::pose::body::Body;
use derecho_core::pose::drag_link::DragLink;
use derecho_core::pose::mechanism::{Mechanism, Parts, Stops};
use derecho_core::pose::sway_linkage::SwayLinkage;
use derecho_core::pose::template::Sizes;
use derecho_core::pose::travel::{Begun, Envelope, Outward};
use derecho_core::pose::{Link, PoseFault};

/// A mechanism as found and as planned, or what keeps it from being put together.
#[derive(Clone, Debug, PartialEq)]
pub struct Assembly {
    /// As found in this round.
    pub found: Mechanism,
    /// With the planned or set length, or the holes that are tried.
    pub plan: Option<Planned>,
    /// Whether some of where a link's ends are nobody typed, in the order of the links.
    pub assumed_links: Vec<bool>,
    /// What is assumed, point by point.
    pub assumptions: Vec<Assumption>,
    /// What does not agree, each with its likely cause.
    pub warnings: Vec<Message>,
}

impl Assembly {
    /// The mechanism that decides: as planned or set where there is a plan, else as found.
    #[must_use]
    pub fn mechanism(&self) -> &Mechanism {
        self.plan.as_ref().map_or(&self.found, |plan| &plan.mechanism)
    }
}

/// The other setup.
#[derive(Clone, Debug, PartialEq)]
pub struct Planned {
    /// The mechanism.
    pub mechanism: Mechanism,
    /// Its bar's length.
    pub bar_length: Length,
    /// Whether holes are tried out.
    pub trial: bool,
}

/// The mechanism of a job whose travel goes so far past its stops both ways; None where it cannot be put together.
#[must_use]
pub fn past_the_stops(job: &Job, setups: Option<&Setups>) -> Option<Assembly> {
    let (droop, bump) = crate::document::heights::travel(&job.rig);
    let further = |travel: Length| TapeEntry::of(travel + defaults::PAST_THE_STOPS);
    let rig = Rig { droop: further(droop), bump: further(bump), ..job.rig.clone() };
    assemble(&Job { rig, ..job.clone() }, setups).ok()
}

/// Puts the mechanism of a job together.
///
/// # Errors
/// With what is missing or cannot be, each naming the part.
pub fn assemble(job: &Job, setups: Option<&Setups>) -> Result<Assembly, Missing> {
    let bench = ReadJob::new(job, setups)?;
    let as_found = BarId::default();
    let now = setups.map_or(&as_found, |setups| &setups.base.bar.id);
    let plan = match (bench.eyes.is_some(), setups) {
        (true, Some(setups)) => {
            let left = job.setups.plans.trial.as_ref().is_some_and(|t| t.length != LengthAim::Centred);
            bench.frame.plan(setups, &bench.found, left).map_err(|f| bench.frame.faulty(f))?
        }
        _ => None,
    };
    // Where no other bar is planned, the one that is there moves with whatever else is planned.
    let when = if plan.is_some() { When::Now } else { When::Planned };
    let found = bench.mechanism(&bench.found, &SolvedBar::of(job, now), (bench.steering, when));
    let planned = setups.map_or(&as_found, |setups| &setups.trial.as_ref().unwrap_or(setups.other()).bar.id);
    let planned = SolvedBar::of(job, planned);
    let plan = plan.map(|(fitted, bar_length, trial)| Planned {
        mechanism: bench.mechanism(&fitted, &planned, (planned_steering(job, setups, &bench), When::Planned)),
        bar_length,
        trial,
    });
    let mut warnings = bench.warnings;
    inside_as_it_stands(&found, &mut warnings);
    let bar_assumed = bench.eyes.as_ref().map(|eyes| eyes.assumed);
    let assumed_links = bar_assumed.into_iter().chain(bench.frame.arms.assumed.iter().copied()).collect();
    Ok(Assembly { found, plan, assumed_links, assumptions: bench.assumptions, warnings })
}

/// The envelope of a mechanism, both halves at once, nothing watched yet.
///
/// # Errors
/// Where ride height itself has no pose.
pub fn envelope(mechanism: &Mechanism, side: usize) -> Result<Envelope, PoseFault> {
    let begun = Begun::of(mechanism, side)?;
    let (low, high) = std::thread::scope(|scope| {
        let low = scope.spawn(|| begun.outward(Outward::Down));
        let high = begun.outward(Outward::Up);
        (low.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic)), high)
    });
    Ok(begun.joined(low, high))
}

/// How far to the left of the frame's middle the axle stood before anything was set: as its points were measured.
fn stood(setups: &Setups) -> Length {
    setups.rounds.first().unwrap_or(&setups.base).offset
}

/// As the vehicle is now, or as it is planned.
#[derive(Clone, Copy, PartialEq, Eq)]
enum When {
    Now,
    Planned,
}

/// How far up the tie rod is from where it was found, now and as it is planned, mm; None where nobody said how far it moves.
fn tie_rod_raised(job: &Job) -> [Option<f64>; 2] {
    let raised = job.hardpoints.tie_rod.as_ref().and_then(TieRodForm::raised);
    let moved = |is: bool| if is { raised } else { Some(0.0) };
    let installed = job.has_installed(FittedPart::TieRod);
    [moved(installed), moved(installed || job.installs(FittedPart::TieRod))]
}

/// The sway bar as it is by now and as it is planned: none now where this job installs it and has not yet.
fn sway_by_now(job: &Job) -> [(Option<SwayLinkage>, Vec<Body>); 2] {
    let SwaySetups { plan, fitted, .. } = SwaySetups::of(job);
    let to_come = job.installs(FittedPart::SwayBar) && !job.has_installed(FittedPart::SwayBar);
    let now = if to_come { (None, Vec::new()) } else { bodies::sway(job, &fitted) };
    [now, bodies::sway(job, &plan)]
}

/// Everything a job's mechanisms are put together from, whatever hole and bar.
pub(crate) struct ReadJob<'a> {
    job: &'a Job,
    frame: SharedSetup,
    /// What was measured, and what a vehicle has anyway.
    bodies: Vec<Body>,
    /// The tie rod where it was found, and how far up it is by now and as it is planned, mm, where that was told.
    tie_rod: Option<(Body, [Option<f64>; 2])>,
    /// The sway bar as it is now and as it is planned.
    sway: [(Option<SwayLinkage>, Vec<Body>); 2],
    half_track: f64,
    steering: Option<(DragLink, Length)>,
    steering_assumed: bool,
    /// How far up the part that is fitted already has taken the link's ends, pitman end first, mm.
    link_raised: [f64; 2],
    stops: Stops,
    found: Fitted,
    eyes: Option<bar::BarEyes>,
    assumptions: Vec<Assumption>,
    warnings: Vec<Message>,
}

impl<'a> ReadJob<'a> {
    /// Reads the job's points and fits it as found.
    pub(crate) fn new(job: &'a Job, setups: Option<&Setups>) -> Result<Self, Missing> {
        let Some(location) = job.rig.axle_location else {
            let ask = asks::AXLE_LOCATION;
            return Err(vec![FieldError::new("/rig/axle_location", "missing", ask)]);
        };
        let has_bar = location != AxleLocation::YLink;
        // Arms and links of a sway bar are sized without the track bar: the axle goes straight up and down then.
        let upright = has_bar && setups.is_none() && job.is_sway_alone();
        if has_bar && setups.is_none() && !upright && matches!(location, AxleLocation::LeafSprings) {
            let ask = asks::BAR_FIRST;
            return Err(vec![FieldError::new("/setups/found/bar/length", "missing", ask)]);
        }
        let rig = &job.rig;
        if heights::rail_is_open(job) {
            let at = "/sway/room/rail_underside";
            return Err(vec![FieldError::new(at, "missing", asks::RAIL_UNDERSIDE)]);
        }
        let axle_height = heights::axle_height(rig).to_mm();
        let half_track = length_of(&rig.track).map_or(defaults::TRACK, Length::to_mm) / 2.0;
        let mut reader = PointReader {
            job,
            read_at: if job.hardpoints.height.is_empty() {
                heights::driven_offset(rig)
            } else {
                heights::offset_of(rig, &job.hardpoints.height)
            },
            sizes: Sizes {
                rail: length_of(&rig.frame_width).map_or(super::defaults::FRAME_WIDTH, Length::to_mm) / 2.0,
                axle_height,
                leads: if rig.end == Some(AxleEnd::Rear) { 1.0 } else { -1.0 },
            },
            stood: setups.map_or(Length::ZERO, stood).to_mm(),
            assumptions: Vec::new(),
            warnings: Vec::new(),
            faults: Vec::new(),
        };
        if upright {
            reader.assume("/setups/found/bar/length", AssemblyMessage::StraightUpAndDown.into());
        }
        if rig.axle_height.is_none() {
            reader.assume("/rig/axle_height", AssemblyMessage::AxleHeight { mm: axle_height }.into());
        }
        let arms = reader.arms(location);
        let eyes = setups.filter(|_| has_bar).map(|setups| reader.bar_eyes(setups));
        let mut all = reader.obstacles();
        all.extend(reader.driveshaft());
        let tie_rod = reader.tie_rod(half_track).map(|rod| (rod, tie_rod_raised(job)));
        let steering = reader.steering(half_track);
        let steering_assumed = steering.is_some_and(|(.., assumed)| assumed);
        all.extend(bodies::of_the_vehicle(job, (half_track, axle_height)));
        if !reader.faults.is_empty() {
            return Err(reader.faults);
        }
        let frame = SharedSetup {
            axle_height: Length::from_mm(axle_height),
            driven: -heights::driven_offset(rig),
            read: -reader.read_at,
            stood: Length::from_mm(reader.stood),
            location,
            has_bar: eyes.is_some(),
            upright,
            tightened: -heights::offset_of(rig, &job.hardpoints.tightened_height),
            bar_stiffness: bar_stiffness(job, &arms),
            arms,
        };
        let found = frame.setup(eyes.as_ref().map(|eyes| eyes.found)).map_err(|f| frame.faulty(f))?;
        // The link was measured as found; a part fitted since has moved its ends.
        let link_raised =
            setups.map_or([0.0; 2], |setups| moves::drag_link_raise(job, &setups.base.drag_link));
        let steering = steering.map(|(link, radius, _)| {
            // Wheels straight as it stands: the link is as long as its ends are apart there.
            let link = raise(link, link_raised);
            let driven = found.at_driven.pose;
            let made = link.straight_length(frame.axle_height, &driven);
            (DragLink { made, ..link }, radius)
        });
        Ok(Self {
            job,
            frame,
            bodies: all,
            tie_rod,
            sway: sway_by_now(job),
            half_track,
            steering,
            steering_assumed,
            link_raised,
            stops: stops(job, half_track),
            found,
            eyes,
            assumptions: reader.assumptions,
            warnings: reader.warnings,
        })
    }

    /// The tie rod as it is now or as it is planned.
    fn tie_rod(&self, when: When) -> Option<Body> {
        let (rod, [now, planned]) = self.tie_rod.as_ref()?;
        let up = DVec3::Z * if when == When::Now { *now } else { *planned }?;
        Some(Body { points: rod.points.iter().map(|end| *end + up).collect(), ..rod.clone() })
    }

    fn mechanism(
        &self,
        fitted: &Fitted,
        bar: &SolvedBar,
        (steering, when): (Option<(DragLink, Length)>, When),
    ) -> Mechanism {
        // As it lies in this setup, at ride height.
        let bar = fitted.bar.map(|link| {
            let axle = fitted.ride.pose.place(self.frame.axle_height, link.axle);
            let side = Side::of(link.body.vector().y);
            let assumed = self.eyes.as_ref().is_some_and(|eyes| eyes.assumed);
            bar.member((axle - link.body).normalize_or(DVec3::Y), side, assumed)
        });
        let tie_rod = self.tie_rod(when);
        let knuckles =
            bodies::knuckles(self.job, (self.half_track, self.frame.axle_height.to_mm()), tie_rod.as_ref());
        let arms = knuckles.as_ref().map(|knuckles| bodies::steering_arms(knuckles, tie_rod.as_ref()));
        let (sway, of_the_sway_bar) = &self.sway[usize::from(when == When::Planned)];
        let brackets = fitted.bar.iter().flat_map(|bar| bodies::brackets(self.job, bar));
        let bodies = self.bodies.iter().chain(of_the_sway_bar).cloned();
        let bodies = bodies.chain(tie_rod).chain(arms.into_iter().flatten()).chain(brackets).collect();
        let parts = Parts {
            suspension: fitted.suspension.clone(),
            members: self.frame.members(bar.as_ref()),
            bar: bar.as_ref().map(|_| 0),
            radius_arms: self.frame.radius_arms(bar.is_some()),
            bodies,
            steering,
            steering_assumed: self.steering_assumed,
            knuckles,
            sway: sway.clone(),
            stops: self.stops,
            driven: self.frame.driven,
        };
        // Bushings wind up from where they were tightened.
        let tightened = fitted.suspension.solve(self.frame.tightened, Angle::ZERO, fitted.ride.start());
        Mechanism::new(parts, tightened.as_ref().map_or(&fitted.ride.pose, |solved| &solved.pose))
    }

    /// The bar's eyes as found, at ride height with the axle centred.
    pub(crate) fn bar_link(&self) -> Option<Link> {
        self.found.bar
    }

    /// Height of the axle centre.
    pub(crate) const fn axle_height(&self) -> Length {
        self.frame.axle_height
    }

    /// How far up its ends still go from where the part that is fitted has them.
    fn further(&self, raised: [f64; 2]) -> [f64; 2] {
        [raised[0] - self.link_raised[0], raised[1] - self.link_raised[1]]
    }

    /// How much of its slant the part that is fitted has taken from the link already, mm.
    pub(crate) fn link_lifted(&self) -> f64 {
        self.link_raised[1] - self.link_raised[0]
    }

    /// The drag link as it is.
    pub(crate) const fn drag_link(&self) -> Option<&(DragLink, Length)> {
        self.steering.as_ref()
    }

    /// Eyes moved and another bar in: the mechanism with a length, or with the one that centres the axle at
    /// the driven height, and that length.
    ///
    /// `raised` moves the drag link's ends from where they were found, pitman end first, in mm up; it is set straight
    /// again.
    pub(crate) fn candidate(
        &self,
        (moves, length): (EyeMoves, Option<Length>),
        bar: &SolvedBar,
        raised: [f64; 2],
    ) -> Result<(Mechanism, Length), PoseFault> {
        let (fitted, length) = self.frame.moved(&self.found, moves, length)?;
        let steering = self.steering.map(|(link, radius)| {
            let link = raise(link, self.further(raised));
            let made = link.straight_length(self.frame.axle_height, &fitted.at_driven.pose);
            (DragLink { made, ..link }, radius)
        });
        Ok((self.mechanism(&fitted, bar, (steering, When::Planned)), length))
    }
}

/// The bar's stiffness among the arms': its own, else that of the stiffest; None where an arm's is not known,
/// since then all count alike.
fn bar_stiffness(job: &Job, arms: &arms::Arms) -> Option<f64> {
    let known = arms.links.iter().map(|link| link.stiffness).collect::<Option<Vec<_>>>()?;
    let stiffest = known.into_iter().reduce(f64::max)?;
    Some(job.hardpoints.bar.stiffness_n_per_mm.unwrap_or(stiffest))
}

/// A drag link with its ends moved up, pitman end first.
fn raise(link: DragLink, raised: [f64; 2]) -> DragLink {
    DragLink {
        pitman: link.pitman.moved(DVec3::Z * raised[0]),
        knuckle: link.knuckle.moved(DVec3::Z * raised[1]),
        ..link
    }
}

/// The drag link with the chosen plan's part, as long as it is now: what it wants is told.
fn planned_steering(job: &Job, setups: Option<&Setups>, bench: &ReadJob<'_>) -> Option<(DragLink, Length)> {
    let (link, radius) = bench.steering?;
    let none = DragLinkId::default();
    let part = setups.map_or(&none, |setups| &setups.trial.as_ref().unwrap_or(setups.other()).drag_link);
    Some((raise(link, bench.further(moves::drag_link_raise(job, part))), radius))
}

fn stops(job: &Job, half_track: f64) -> Stops {
    let rig = &job.rig;
    let (droop, bump) = heights::travel(rig);
    let half = |entry: &Option<TapeEntry>| length_of(entry).unwrap_or(Length::from_mm(half_track));
    Stops {
        bump,
        droop,
        bump_half_spacing: half(&rig.bump_half_spacing),
        droop_half_spacing: half(&rig.droop_half_spacing),
        half_track: Length::from_mm(half_track),
    }
}

/// Whatever lies inside another part before anything moves was measured wrong.
fn inside_as_it_stands(mechanism: &Mechanism, warnings: &mut Vec<Message>) {
    let Ok(stands) = mechanism.at_driven_height() else { return };
    for (index, watch) in mechanism.watches().iter().enumerate() {
        let inside = watch.is_gap().then(|| mechanism.value_of(&stands, index)).filter(|gap| *gap < 0.0);
        if let Some(gap) = inside {
            let Some(parts) = named::pair(mechanism, watch.what) else { continue };
            warnings.push(AssemblyMessage::Inside { parts, gap }.into());
        }
    }
}

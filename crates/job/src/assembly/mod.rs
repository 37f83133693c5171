//! From what a person measured to the mechanism that is solved: points, links, joints,
//! obstacles, with what had to be assumed and what does not agree.

mod arms;
mod bar;
mod things;
pub mod weights;

use crate::usual;
use glam::DVec3;

use crate::assembly::arms::Arms;
use crate::document::check::FieldError;
use crate::document::hardpoints::{PointForm, SidewaysFrom};
use crate::document::heights;
use crate::document::{AxleLocation, Job, length_of};
use crate::setups::Setups;
use crate::setups::moves::{self, EyeMoves};
use crate::usual::Assumption;
use derecho_core::measure::phrase::Words;
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Angle, Length, Phrase, Side, TapeEntry};
use derecho_core::pose::drag_link::DragLink;
use derecho_core::pose::mechanism::{Mechanism, Member, Obstacle, Parts, Stops};
use derecho_core::pose::template::Sizes;
use derecho_core::pose::{Held, Link, Pose, PoseFault, Solved, Start, Suspension, WindUp};

/// A mechanism as found and as planned, or what keeps it from being put together.
#[derive(Clone, Debug, PartialEq)]
pub struct Assembly {
    /// As found in this round.
    pub found: Mechanism,
    /// With the planned or set length, or the holes that are tried.
    pub plan: Option<Planned>,
    /// What is assumed, point by point.
    pub assumptions: Vec<Assumption>,
    /// What does not agree, each with its likely cause.
    pub warnings: Vec<Phrase>,
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

/// Gathers faults, assumptions and warnings while points are read.
struct Reader<'a> {
    job: &'a Job,
    /// Body above ride height when the points were read.
    read_at: Length,
    sizes: Sizes,
    assumptions: Vec<Assumption>,
    warnings: Vec<Phrase>,
    faults: Vec<FieldError>,
}

/// A point with what it is good to.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Read {
    at: DVec3,
    good_to: f64,
    /// Nobody typed where it is fore and aft.
    fore_aft_open: bool,
}

/// How a point is asked for.
struct Ask<'a> {
    pointer: String,
    name: String,
    form: &'a PointForm,
    /// The same point on the other side, used where this one is empty.
    like: Option<&'a PointForm>,
    side: Side,
    body: bool,
    /// Usual place at ride height, y out to its own side.
    usual: DVec3,
}

impl Reader<'_> {
    fn assume(&mut self, pointer: &str, says: Phrase) {
        self.assumptions.push(Assumption { pointer: pointer.to_owned(), says, drawing_only: false });
    }

    fn fault(&mut self, pointer: impl Into<String>, code: &str, message: String) {
        self.faults.push(FieldError::new(pointer, code, message));
    }

    /// A point at ride height, in vehicle axes.
    fn point(&mut self, ask: &Ask<'_>) -> Read {
        let pick = |field: fn(&PointForm) -> &Option<TapeEntry>| {
            field(ask.form).as_ref().or_else(|| ask.like.and_then(|like| field(like).as_ref()))
        };
        let height = pick(|form| &form.height).map(TapeEntry::length);
        let sideways = pick(|form| &form.sideways).map(TapeEntry::length);
        let fore_aft = pick(|form| &form.fore_aft).map(TapeEntry::length);
        let from = if ask.form.sideways.is_some() { ask.form } else { ask.like.unwrap_or(ask.form) };
        let rail = ask.body && from.sideways_from == SidewaysFrom::RailOuterFace;
        let out = sideways.map(|s| if rail { s.to_mm() + self.sizes.rail } else { s.to_mm() });
        let up = height.map(|h| if ask.body { h - self.read_at } else { h }.to_mm());
        let at = DVec3::new(
            fore_aft.map_or(ask.usual.x, Length::to_mm),
            out.unwrap_or(ask.usual.y) * ask.side.sign(),
            up.unwrap_or(ask.usual.z),
        );
        let assumed = [
            (height.is_none(), "height", ask.usual.z),
            (sideways.is_none(), "out from the middle", ask.usual.y),
            (fore_aft.is_none() && ask.usual.x != 0.0, "fore and aft", ask.usual.x.abs()),
        ];
        let told = |w: Words| {
            let parts: Vec<String> = assumed
                .iter()
                .filter(|(open, ..)| *open)
                .map(|(_, what, mm)| format!("{what} {}", w.distance(Length::from_mm(*mm))))
                .collect();
            format!("{}: {}", ask.name, parts.join(", "))
        };
        if assumed.iter().any(|(open, ..)| *open) {
            self.assume(&ask.pointer, Phrase::of(told));
        }
        let good_to = pick(|form| &form.good_to).map_or(usual::PLUMBED, TapeEntry::length).to_mm();
        Read { at, good_to, fore_aft_open: fore_aft.is_none() }
    }
}

/// Where nothing at all can be put together: what is missing, each with its field.
pub type Missing = Vec<FieldError>;

/// Puts the mechanism of a job together.
///
/// # Errors
/// With what is missing or cannot be, each naming the part.
pub fn assemble(job: &Job, setups: Option<&Setups>) -> Result<Assembly, Missing> {
    let bench = Workbench::new(job, setups)?;
    let found = bench.mechanism(&bench.found, bench.bar_member.as_ref(), bench.steering);
    let plan = match (bench.eyes.is_some(), setups) {
        (true, Some(setups)) => bench.frame.plan(setups, &bench.found).map_err(|f| bench.frame.faulty(f))?,
        _ => None,
    };
    let plan = plan.map(|(fitted, bar_length, trial)| Planned {
        mechanism: bench.mechanism(&fitted, bench.bar_member.as_ref(), planned_steering(job, setups, &bench)),
        bar_length,
        trial,
    });
    let mut warnings = bench.warnings;
    inside_at_ride_height(&found, &mut warnings);
    Ok(Assembly { found, plan, assumptions: bench.assumptions, warnings })
}

/// Everything a job's mechanisms are put together from, whatever hole and bar.
pub(crate) struct Workbench {
    frame: Frame,
    bar_member: Option<Member>,
    obstacles: Vec<Obstacle>,
    steering: Option<(DragLink, Length)>,
    stops: Stops,
    found: Fitted,
    eyes: Option<bar::Eyes>,
    assumptions: Vec<Assumption>,
    warnings: Vec<Phrase>,
}

impl Workbench {
    /// Reads the job's points and fits it as found.
    pub(crate) fn new(job: &Job, setups: Option<&Setups>) -> Result<Self, Missing> {
        let Some(location) = job.rig.axle_location else {
            let ask = "Say in stage Rig what holds the axle fore and aft.";
            return Err(vec![FieldError::new("/rig/axle_location", "missing", ask)]);
        };
        let has_bar = location != AxleLocation::YLink;
        if has_bar && setups.is_none() && matches!(location, AxleLocation::LeafSprings) {
            let ask = "Measure the bar in stage Bar first: it is what moves the axle sideways.";
            return Err(vec![FieldError::new("/setups/found/bar/length", "missing", ask)]);
        }
        let rig = &job.rig;
        let tyre = length_of(&rig.tyre_diameter).map_or(usual::TYRE_DIAMETER, Length::to_mm);
        let axle_height = length_of(&rig.axle_height).map_or(tyre / 2.0, Length::to_mm);
        let half_track = length_of(&rig.track).map_or(usual::TRACK, Length::to_mm) / 2.0;
        let mut reader = Reader {
            job,
            read_at: if job.hardpoints.height.is_empty() {
                heights::driven_offset(rig)
            } else {
                heights::offset_of(rig, &job.hardpoints.height)
            },
            sizes: Sizes {
                rail: length_of(&rig.frame_width).map_or(super::usual::FRAME_WIDTH, Length::to_mm) / 2.0,
                axle_height,
                leads: if rig.end == Some(AxleEnd::Rear) { 1.0 } else { -1.0 },
            },
            assumptions: Vec::new(),
            warnings: Vec::new(),
            faults: Vec::new(),
        };
        if rig.axle_height.is_none() {
            reader.assume("/rig/axle_height", axle_height_words(axle_height));
        }
        let arms = reader.arms(location);
        let eyes = setups.filter(|_| has_bar).map(|setups| reader.bar_eyes(setups));
        let obstacles = reader.obstacles();
        let steering = reader.steering(half_track);
        if !reader.faults.is_empty() {
            return Err(reader.faults);
        }
        let frame = Frame {
            axle_height: Length::from_mm(axle_height),
            driven: -heights::driven_offset(rig),
            location,
            arms,
        };
        let found = frame.setup(eyes.as_ref().map(|eyes| eyes.found)).map_err(|f| frame.faulty(f))?;
        let steering = steering.map(|(link, radius)| {
            // Wheels straight as found: the link is as long as its ends are apart there.
            let driven = found.at_driven.pose;
            let made = link.straight_length(frame.axle_height, &driven);
            (DragLink { made, ..link }, radius)
        });
        let bar_member = found.bar.as_ref().map(|link| reader.bar_member(link));
        Ok(Self {
            frame,
            bar_member,
            obstacles,
            steering,
            stops: stops(job, half_track),
            found,
            eyes,
            assumptions: reader.assumptions,
            warnings: reader.warnings,
        })
    }

    fn mechanism(
        &self,
        fitted: &Fitted,
        bar: Option<&Member>,
        steering: Option<(DragLink, Length)>,
    ) -> Mechanism {
        let parts = Parts {
            suspension: fitted.suspension.clone(),
            members: self.frame.members(bar),
            bar: bar.map(|_| 0),
            radius_arms: self.frame.radius_arms(bar.is_some()),
            obstacles: self.obstacles.clone(),
            steering,
            stops: self.stops,
        };
        Mechanism::new(parts, &fitted.ride.pose)
    }

    /// The bar as a body as it is now.
    pub(crate) const fn bar_member(&self) -> Option<&Member> {
        self.bar_member.as_ref()
    }

    /// The bar's eyes as found, at ride height with the axle centred.
    pub(crate) fn bar_link(&self) -> Option<Link> {
        self.found.bar
    }

    /// Height of the axle centre.
    pub(crate) const fn axle_height(&self) -> Length {
        self.frame.axle_height
    }

    /// The drag link as it is.
    pub(crate) const fn drag_link(&self) -> Option<&(DragLink, Length)> {
        self.steering.as_ref()
    }

    /// Eyes moved and another bar in: the mechanism with the length that centres the axle at
    /// the driven height, and that length.
    ///
    /// `raised` moves the drag link's ends, pitman end first, in mm up; it is set straight again.
    pub(crate) fn candidate(
        &self,
        moves: EyeMoves,
        bar: &Member,
        raised: [f64; 2],
    ) -> Result<(Mechanism, Length), PoseFault> {
        let (fitted, length) = self.frame.moved(&self.found, moves)?;
        // Bolts stay square to the bar where it lies now.
        let link = fitted.suspension.links()[0];
        let along =
            (fitted.ride.pose.place(self.frame.axle_height, link.axle) - link.body).normalize_or(DVec3::Y);
        let mut member = bar.clone();
        for joint in &mut member.joints {
            joint.bolt = (joint.bolt - along * along.dot(joint.bolt)).normalize_or(joint.bolt);
        }
        let steering = self.steering.map(|(link, radius)| {
            let link = raise(link, raised);
            let made = link.straight_length(self.frame.axle_height, &fitted.at_driven.pose);
            (DragLink { made, ..link }, radius)
        });
        Ok((self.mechanism(&fitted, Some(&member), steering), length))
    }
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
fn planned_steering(job: &Job, setups: Option<&Setups>, bench: &Workbench) -> Option<(DragLink, Length)> {
    let (link, radius) = bench.steering?;
    let part = setups.map_or("", |setups| setups.trial.as_ref().unwrap_or(setups.other()).drag_link.as_str());
    Some((raise(link, moves::drag_link_raise(job, part)), radius))
}

fn axle_height_words(mm: f64) -> Phrase {
    Phrase::of(|w| format!("axle centre {} above the floor", w.distance(Length::from_mm(mm))))
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

/// Everything a setup shares with the others.
struct Frame {
    axle_height: Length,
    /// Travel of the driven height.
    driven: Length,
    location: AxleLocation,
    arms: Arms,
}

/// The bar of one setup, its axle eye named with the axle centred at ride height.
#[derive(Clone, Copy, Debug, PartialEq)]
struct SetupBar {
    link: Link,
    /// Where the axle is at the driven height, + left.
    offset: Length,
}

/// A suspension fitted at its own ride height.
struct Fitted {
    suspension: Suspension,
    ride: Solved,
    at_driven: Solved,
    bar: Option<Link>,
}

impl Frame {
    fn held(&self, has_bar: bool) -> Held {
        if self.location != AxleLocation::LeafSprings {
            return Held::default();
        }
        // Springs taken as links locate fore and aft and steering themselves.
        let rigid = self.arms.links.is_empty();
        Held { x: rigid, y: !has_bar, pitch: true, yaw: rigid }
    }

    fn wind_up(&self, has_bar: bool) -> Option<WindUp> {
        let first = usize::from(has_bar);
        (self.location == AxleLocation::RadiusArms).then_some(WindUp { left: first, right: first + 1 })
    }

    fn radius_arms(&self, has_bar: bool) -> Option<(WindUp, Length)> {
        self.wind_up(has_bar).map(|arms| (arms, self.arms.bush_spacing))
    }

    fn suspension(&self, bar: Option<Link>) -> Suspension {
        let links = bar.into_iter().chain(self.arms.links.iter().copied()).collect();
        Suspension::new(self.axle_height, links, self.wind_up(bar.is_some()), self.held(bar.is_some()))
    }

    /// Fits one setup: the bar keeps its length, the axle stands at its offset at the driven
    /// height, and the arms are at rest at ride height.
    fn setup(&self, bar: Option<SetupBar>) -> Result<Fitted, PoseFault> {
        let Some(SetupBar { link, offset }) = bar else {
            let suspension = self.suspension(None);
            if let Some(motion) = suspension.loose(Start::default(), Length::ZERO, Angle::ZERO) {
                return Err(PoseFault::Loose(motion));
            }
            let ride = suspension.solve(Length::ZERO, Angle::ZERO, Start::default())?;
            let at_driven = suspension.solve(self.driven, Angle::ZERO, ride.start())?;
            return Ok(Fitted { suspension, ride, at_driven, bar: None });
        };
        let mut eye = link;
        // The eye least certain in y is moved until the axle stands where it was read; the
        // arms turn and draw it a little, so a few rounds are needed.
        for _ in 0..8 {
            let fitted = self.fitted(eye)?;
            let miss = (fitted.at_driven.pose.y - offset).to_mm();
            if miss.abs() < 1e-9 {
                return Ok(fitted);
            }
            eye.axle = eye.axle.moved(DVec3::new(0.0, miss, 0.0));
        }
        self.fitted(eye)
    }

    /// A setup whose bar is known in place and length: arms at rest at its ride height.
    fn fitted(&self, bar: Link) -> Result<Fitted, PoseFault> {
        let mut suspension = self.suspension(Some(bar));
        if let Some(motion) = suspension.loose(Start::default(), Length::ZERO, Angle::ZERO) {
            return Err(PoseFault::Loose(motion));
        }
        // Where the arms alone put an axle that is held so far over that the bar fits.
        let mut y = Length::ZERO;
        let mut over = suspension.held_sideways(y, Length::ZERO, Some(0))?;
        for _ in 0..12 {
            let eye = over.pose.place(self.axle_height, bar.axle);
            let [dx, dy, dz] = (bar.body - eye).to_array();
            let reach = bar.made.to_mm().powi(2) - dx * dx - dz * dz;
            if reach <= 0.0 {
                return Err(PoseFault::OutOfReach { link: 0, missing_mm: (-reach).sqrt() });
            }
            let miss = dy - dy.signum() * reach.sqrt();
            y = y + Length::from_mm(miss);
            over = suspension.held_sideways(y, Length::ZERO, Some(0))?;
            if miss.abs() < 1e-11 {
                break;
            }
        }
        let ride_pose = over.pose;
        suspension.fit(&ride_pose, true);
        // Its own length to the last digit, not what the pose makes of it.
        let suspension = suspension.with_link(0, bar);
        let ride = suspension.solve(Length::ZERO, Angle::ZERO, over.start())?;
        let at_driven = suspension.solve(self.driven, Angle::ZERO, ride.start())?;
        Ok(Fitted { suspension, ride, at_driven, bar: Some(bar) })
    }

    /// A fault in words, naming the part.
    fn faulty(&self, fault: PoseFault) -> Missing {
        let (pointer, message) = match fault {
            PoseFault::Loose(motion) => (
                "/rig/axle_location".to_owned(),
                format!(
                    "As measured, nothing holds the axle {motion}. Check the arms' places and what holds the axle, or measure the bar."
                ),
            ),
            PoseFault::OutOfReach { link, missing_mm } => {
                let part = self.part_name(link);
                (
                    self.part_pointer(link),
                    format!(
                        "The {part} does not reach: it is {:.0} mm too short for where its ends are at ride height. Check its length and both ends.",
                        missing_mm.abs()
                    ),
                )
            }
        };
        vec![FieldError::new(pointer, "impossible_geometry", message)]
    }

    fn part_name(&self, link: usize) -> String {
        let arm = link.checked_sub(1).and_then(|arm| self.arms.names.get(arm));
        arm.cloned().unwrap_or_else(|| "track bar".to_owned())
    }

    fn part_pointer(&self, link: usize) -> String {
        let arm = link.checked_sub(1).and_then(|arm| self.arms.pointers.get(arm));
        arm.cloned().unwrap_or_else(|| "/setups/found/bar/length".to_owned())
    }
}

/// Whatever lies inside another part before anything moves was measured wrong.
fn inside_at_ride_height(mechanism: &Mechanism, warnings: &mut Vec<Phrase>) {
    let Ok(ride) = mechanism.at_ride_height() else { return };
    for (index, watch) in mechanism.watches().iter().enumerate() {
        let inside = watch.is_gap().then(|| mechanism.value_of(&ride, index)).filter(|gap| *gap < 0.0);
        if let Some(gap) = inside {
            let parts = crate::cycle::words::pair(mechanism, watch.what);
            warnings.push(Phrase::of(|w| {
                format!(
                    "The {} lies {} inside the {} at ride height already. Check where both were measured, and how thick they are.",
                    parts.1,
                    w.distance(Length::from_mm(gap)),
                    parts.0
                )
            }));
        }
    }
}

/// The pose of an axle held sideways with its bar out, for the length a bar needs there.
fn held(fitted: &Fitted, target: Length, driven: Length) -> Result<Pose, PoseFault> {
    let bar = fitted.bar.map(|_| 0);
    fitted.suspension.held_sideways(target, driven, bar).map(|solved| solved.pose)
}

//! Everything a setup shares with the others, and a setup fitted at its own ride height.

use crate::document::bodies::TRACK_BAR;
use crate::document::check::{FieldError, asks};
use derecho_core::measure::{Angle, Length};
use derecho_core::pose::mechanism::Member;
use derecho_core::pose::{Held, Link, Pose, PoseFault, Solved, Start, Suspension, WindUp};
use glam::DVec3;

use super::arms::Arms;
use crate::document::AxleLocation;

/// Where nothing at all can be put together: what is missing, each with its field.
pub type Missing = Vec<FieldError>;

/// Everything a setup shares with the others.
pub(super) struct SharedSetup {
    pub(super) axle_height: Length,
    /// Travel of the driven height.
    pub(super) driven: Length,
    /// Travel of the height the points were read at: arms lie along their readings there.
    pub(super) read: Length,
    /// How far to the left of the frame's middle the axle stood then.
    pub(super) stood: Length,
    pub(super) location: AxleLocation,
    /// Whether the first link is the track bar.
    pub(super) has_bar: bool,
    /// Whether nothing moves the axle sideways, because its track bar is not asked for.
    pub(super) upright: bool,
    pub(super) arms: Arms,
    /// Travel of the height the bushings were tightened at.
    pub(super) tightened: Length,
    /// The bar's stiffness, N/mm, where every arm's is known.
    pub(super) bar_stiffness: Option<f64>,
}

/// The bar of one setup, its axle eye named with the axle centred at ride height.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct SetupBar {
    pub(super) link: Link,
    /// Where the axle is at the driven height, + left.
    pub(super) offset: Length,
}

/// A suspension fitted at its own ride height.
pub(super) struct Fitted {
    pub(super) suspension: Suspension,
    pub(super) ride: Solved,
    pub(super) at_driven: Solved,
    pub(super) bar: Option<Link>,
}

/// Steps that bring a miss to nought which a step of its own size nearly does: by the secant of the last two.
#[derive(Default)]
struct Secant {
    before: Option<(f64, f64)>,
}

impl Secant {
    fn step(&mut self, miss: f64) -> f64 {
        let step = match self.before {
            // A miss that hardly changed says nothing of the slope.
            Some((stepped, missed)) if (miss / missed).abs() < 0.5 => miss * stepped / (missed - miss),
            _ => miss,
        };
        self.before = Some((step, miss));
        step
    }
}

impl SharedSetup {
    /// The members in the order of the links: the bar first where there is one.
    pub(super) fn members(&self, bar: Option<&Member>) -> Vec<Member> {
        bar.into_iter().chain(&self.arms.members).cloned().collect()
    }

    pub(super) fn held(&self, has_bar: bool) -> Held {
        if self.location != AxleLocation::LeafSprings {
            return Held { y: self.upright, ..Held::default() };
        }
        // Springs taken as links locate fore and aft and steering themselves.
        let rigid = self.arms.links.is_empty();
        Held { x: rigid, y: !has_bar, pitch: true, yaw: rigid }
    }

    pub(super) fn wind_up(&self, has_bar: bool) -> Option<WindUp> {
        let first = usize::from(has_bar);
        (self.location == AxleLocation::RadiusArms).then_some(WindUp { left: first, right: first + 1 })
    }

    pub(super) fn radius_arms(&self, has_bar: bool) -> Option<(WindUp, Length)> {
        self.wind_up(has_bar).map(|arms| (arms, self.arms.bush_spacing))
    }

    pub(super) fn suspension(&self, bar: Option<Link>) -> Suspension {
        let bar_link = bar.map(|bar| Link { stiffness: self.bar_stiffness, ..bar });
        let links = bar_link.into_iter().chain(self.arms.links.iter().copied()).collect();
        let (wind_up, held) = (self.wind_up(bar.is_some()), self.held(bar.is_some()));
        let mut suspension = Suspension::new(self.axle_height, links, wind_up, held);
        suspension.fit(&Pose { y: self.stood, z: self.read, ..Pose::RIDE }, false);
        suspension
    }

    /// Fits one setup: the bar keeps its length, the axle stands at its offset at the driven
    /// height, and the arms are at rest at ride height.
    pub(super) fn setup(&self, bar: Option<SetupBar>) -> Result<Fitted, PoseFault> {
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
        let mut fitted = self.fitted(eye)?;
        // The eye least certain in y is moved until the axle stands where it was read; the
        // arms turn and draw it a little, so a few rounds are needed.
        let mut rounds = Secant::default();
        for _ in 0..8 {
            let miss = (fitted.at_driven.pose.y - offset).to_mm();
            if miss.abs() < 1e-9 {
                return Ok(fitted);
            }
            eye.axle = eye.axle.moved(DVec3::new(0.0, rounds.step(miss), 0.0));
            fitted = self.at_rest(eye, fitted.ride.start(), fitted.ride.pose.y)?;
        }
        Ok(fitted)
    }

    /// A setup whose bar is known in place and length: arms at rest at its ride height.
    pub(super) fn fitted(&self, bar: Link) -> Result<Fitted, PoseFault> {
        let suspension = self.suspension(Some(bar));
        if let Some(motion) = suspension.loose(Start::default(), Length::ZERO, Angle::ZERO) {
            return Err(PoseFault::Loose(motion));
        }
        self.at_rest(bar, Start::default(), Length::ZERO)
    }

    /// As [`Self::fitted`] of a bar that is known to hold the axle, looked for from where it about stands, `y` to
    /// the left.
    fn at_rest(&self, bar: Link, start: Start, mut y: Length) -> Result<Fitted, PoseFault> {
        let mut suspension = self.suspension(Some(bar));
        // Where the arms alone put an axle that is held so far over that the bar fits.
        let mut over = suspension.held_sideways(y, Length::ZERO, Some(0), start)?;
        let mut rounds = Secant::default();
        for _ in 0..12 {
            let eye = over.pose.place(self.axle_height, bar.axle);
            let [dx, dy, dz] = (bar.body - eye).to_array();
            let reach = bar.made.to_mm().powi(2) - dx * dx - dz * dz;
            if reach <= 0.0 {
                return Err(PoseFault::OutOfReach { link: 0, missing_mm: (-reach).sqrt() });
            }
            let miss = dy - dy.signum() * reach.sqrt();
            y = y + Length::from_mm(rounds.step(miss));
            over = suspension.held_sideways(y, Length::ZERO, Some(0), over.start())?;
            if miss.abs() < 1e-11 {
                break;
            }
        }
        let ride_pose = over.pose;
        suspension.fit(&ride_pose, true);
        // Its own length to the last digit, not what the pose makes of it.
        let suspension = suspension.with_link(0, Link { stiffness: self.bar_stiffness, ..bar });
        let ride = suspension.solve(Length::ZERO, Angle::ZERO, over.start())?;
        let at_driven = suspension.solve(self.driven, Angle::ZERO, ride.start())?;
        Ok(Fitted { suspension, ride, at_driven, bar: Some(bar) })
    }

    /// A fault in words, naming the part.
    pub(super) fn faulty(&self, fault: PoseFault) -> Missing {
        let (pointer, message) = match fault {
            PoseFault::Loose(motion) => ("/rig/axle_location".to_owned(), asks::axle_loose(motion)),
            PoseFault::OutOfReach { link, missing_mm } => {
                let part = self.part_name(link);
                (self.part_pointer(link), asks::does_not_reach(&part, missing_mm))
            }
        };
        vec![FieldError::new(pointer, "impossible_geometry", message)]
    }

    /// Which arm a link is; None for the track bar.
    fn arm_of(&self, link: usize) -> Option<usize> {
        link.checked_sub(usize::from(self.has_bar))
    }

    pub(super) fn part_name(&self, link: usize) -> String {
        let arm = self.arm_of(link).and_then(|arm| self.arms.names.get(arm));
        arm.cloned().unwrap_or_else(|| TRACK_BAR.to_owned())
    }

    pub(super) fn part_pointer(&self, link: usize) -> String {
        let arm = self.arm_of(link).and_then(|arm| self.arms.pointers.get(arm));
        arm.cloned().unwrap_or_else(|| "/setups/found/bar/length".to_owned())
    }
}

/// The pose of an axle held sideways with its bar out, for the length a bar needs there.
pub(super) fn held(fitted: &Fitted, target: Length, driven: Length) -> Result<Pose, PoseFault> {
    let bar = fitted.bar.map(|_| 0);
    fitted.suspension.held_sideways(target, driven, bar, fitted.at_driven.start()).map(|solved| solved.pose)
}

//! Choosing a splined torsion bar: how long, which arms, how stiff, and why.

use crate::defaults;
use crate::document::check::{FieldError, asks};
use crate::message::Message;
use crate::sway::message::{Reason, SplinedFacts, SwayMessage};
use serde::Serialize;
use utoipa::ToSchema;

use crate::document::sway::{Sway, SwayTarget};
use crate::document::{Job, Use, length_of};
use crate::sway::links::{target_link, works_everywhere};
use crate::sway::places;
use crate::sway::places::{Places, over};
use crate::sway::rates::{allowable, worst_twist};
use crate::sway::road_and_trail::Base;
use derecho_core::measure::{Angle, Length, RollRate, SpringRate, TapeEntry};
use derecho_core::pose::mechanism::{Mechanism, Posed};
use derecho_core::pose::travel::Envelope;
use derecho_core::sway::splined::{least_length, mass, next_made, rate_for_gradient, solid_for, stick_out};
use derecho_core::sway::{Arm, BarRate};

/// A bar with a pair of arms.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SplinedOption {
    /// The bar, end to end.
    pub length_mm: Length,
    /// Its outside diameter.
    pub diameter_mm: Length,
    /// Its bore; nought is solid.
    pub bore_mm: Length,
    /// The arm.
    pub arm_mm: Length,
    /// K_bar at ride height, N·m per degree of roll.
    pub roll_rate_nm_per_deg: f64,
    /// Rate at one arm's eye with the other held, N/mm: k_eff/a².
    pub eye_rate_n_per_mm: f64,
    /// Roll on the road; absent where it would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_deg_per_g: Option<f64>,
    /// Twist of the bar at the worst pose.
    pub worst_twist_deg: Angle,
    /// Shear stress there, MPa.
    pub stress_mpa: f64,
    /// Stick-out of each end from the frame, where its width is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stick_out_mm: Option<Length>,
    /// The link that levels this arm.
    pub link_mm: Length,
    /// Mass of the bar, kg.
    pub mass_kg: f64,
    /// Whether it fits, works and is not overstressed.
    pub fits: bool,
    /// Whether it is suggested.
    pub suggested: bool,
    /// In words, with the reason where it does not fit.
    pub says: Message,
}

/// The choice of a splined bar.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SplinedResult {
    /// The answer.
    pub says: Message,
    /// Why this rate, in numbers.
    pub because: Message,
    /// The shortest bar that reaches out of the frame, where its width is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub least_length_mm: Option<Length>,
    /// Roll on the road that suits the use, degrees per g.
    pub wanted_deg_per_g: f64,
    /// K_bar that gives it, N·m per degree of roll; nought or less where none is wanted.
    pub wanted_nm_per_deg: f64,
    /// How many figures it rests on that nobody measured.
    pub assumed: usize,
    /// What keeps it from an answer.
    pub missing: Vec<FieldError>,
    /// Every bar with every arm, in the order typed.
    pub options: Vec<SplinedOption>,
}

impl SplinedResult {
    /// K_bar of the bar suggested, and what it needs.
    pub(crate) fn soft(&self) -> Option<(RollRate, Message)> {
        let best = self.options.iter().find(|option| option.suggested)?;
        let rate = RollRate::from_nm_per_degree(best.roll_rate_nm_per_deg);
        let needs =
            SwayMessage::SoftBar { diameter: best.diameter_mm, length: best.length_mm, arm: best.arm_mm }
                .into();
        Some((rate, needs))
    }
}

/// Roll on the road that suits a use, at one g (defaults of this program), and the use in words.
#[must_use]
pub const fn wanted_roll(used_for: Option<Use>) -> Angle {
    Angle::from_degrees(match used_for {
        Some(Use::Crawling) => 7.0,
        Some(Use::Trails) => 6.0,
        Some(Use::Mixed) | None => 5.5,
        Some(Use::LoadedTravel) => 5.0,
        Some(Use::RoadAndTowing) => 4.5,
        Some(Use::FastDesert) => 4.0,
    })
}

/// K_bar that gives a roll on the road at one g: what both axles need together less what springs
/// and the other axle give, tyres in series undone.
fn wanted_rate(base: &Base, roll: Angle) -> RollRate {
    let here = rate_for_gradient(base.overturning, roll) - base.other.rate();
    let alone = match base.this.tyres {
        Some(tyres) if here < tyres => here / (1.0 - here / tyres),
        Some(_) => RollRate::from_nmm_per_radian(f64::INFINITY),
        None => here,
    };
    alone - base.this.springs
}

pub(crate) fn choose(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    (envelope, ride): (&Envelope, &Posed),
    rate: &BarRate,
    base: &Base,
) -> SplinedResult {
    let form = &job.sway;
    let at_one_g = wanted_roll(job.rig.used_for);
    let wanted = wanted_rate(base, at_one_g);
    let frame = length_of(&job.rig.frame_width);
    let least = frame.map(least_length);
    let mut missing = Vec::new();
    let mut ask = |at: &str, says: &str| missing.push(FieldError::new(at, "missing", says));
    if frame.is_none() {
        ask("/rig/frame_width", asks::FRAME_WIDTH);
    }
    if form.splined.bars.is_empty() {
        ask("/sway/splined/bars", asks::SPLINED_BARS);
    }
    let arms: Vec<Length> = if form.splined.arms.is_empty() {
        vec![places.arm.length]
    } else {
        form.splined.arms.iter().map(TapeEntry::length).collect()
    };
    let swung: Vec<ArmWithLink> = arms
        .iter()
        .filter_map(|arm| ArmWithLink::of(job, mechanism, places, (envelope, ride), *arm))
        .collect();
    let mut options = Vec::new();
    for bar in &form.splined.bars {
        for swung in &swung {
            let made = BarRate {
                outside: bar.diameter.length(),
                bore: length_of(&bar.bore).unwrap_or(Length::ZERO),
                active: bar.length.length(),
                arm: swung.arm,
                bending_arm: None,
                ..*rate
            };
            options.push(option(job, base, &made, swung, (frame, least)));
        }
    }
    let best = suggested(&options, wanted);
    if let Some(index) = best {
        options[index].suggested = true;
    }
    SplinedResult {
        says: answer(form, best.map(|index| &options[index]), wanted, least),
        because: because(job, base, at_one_g, wanted, places, swung.first(), rate),
        least_length_mm: least,
        assumed: base.weighed.assumed.len(),
        wanted_deg_per_g: at_one_g.to_degrees(),
        wanted_nm_per_deg: wanted.to_nm_per_degree(),
        missing,
        options,
    }
}

/// An arm with the link that suits it, swung through everything.
struct ArmWithLink {
    arm: Length,
    link: Length,
    works: bool,
    per_roll: f64,
    twist: Angle,
}

impl ArmWithLink {
    fn of(
        job: &Job,
        mechanism: &Mechanism,
        places: &Places,
        (envelope, driven): (&Envelope, &Posed),
        arm: Length,
    ) -> Option<Self> {
        let longer = Places { arm: Arm { length: arm, ..places.arm }, ..places.clone() };
        let target = if job.sway.target == SwayTarget::LevelMidTravel {
            SwayTarget::LevelMidTravel
        } else {
            SwayTarget::LevelDriven
        };
        let link = target_link(job, mechanism, &longer, target)?;
        let there = Places { arm: Arm { link, ..longer.arm }, ..longer };
        Some(Self {
            arm,
            link,
            works: works_everywhere(&there, envelope),
            per_roll: places::twist_per_roll(&there, driven)?,
            twist: worst_twist(&over(&there, envelope)),
        })
    }
}

fn option(
    job: &Job,
    base: &Base,
    made: &BarRate,
    swung: &ArmWithLink,
    (frame, least): (Option<Length>, Option<Length>),
) -> SplinedOption {
    let roll = made.roll_rate(swung.per_roll);
    let (stress, takes) = (made.stress(swung.twist), allowable(&job.sway));
    let out = frame.map(|frame| stick_out(made.active, frame));
    let too_short = least.filter(|least| made.active < *least);
    let stroke = length_of(&job.sway.shock_stroke);
    let eye_rate =
        SpringRate::from_n_per_mm(made.effective().to_nmm_per_radian() / swung.arm.to_mm().powi(2));
    let kilograms = mass(made.outside, made.bore, made.active);
    let road = base.road_with(roll);
    let unlike = stroke.map(|stroke| (swung.arm - stroke, stroke * defaults::LIKE_STROKE));
    let says = SwayMessage::Splined(Box::new(SplinedFacts {
        diameter: made.outside,
        length: made.active,
        arm: swung.arm,
        road,
        roll,
        eye_rate,
        stress: (stress, takes),
        mass: kilograms,
        out: out.filter(|_| too_short.is_none()),
        short: too_short.map(|least| least - made.active),
        works: swung.works,
        unlike: unlike.filter(|(by, alike)| by.abs() > *alike).map(|(by, _)| by),
    }))
    .into();
    SplinedOption {
        length_mm: made.active,
        diameter_mm: made.outside,
        bore_mm: made.bore,
        arm_mm: swung.arm,
        roll_rate_nm_per_deg: roll.to_nm_per_degree(),
        eye_rate_n_per_mm: eye_rate.to_n_per_mm(),
        road_deg_per_g: road,
        worst_twist_deg: swung.twist,
        stress_mpa: stress.to_mpa(),
        stick_out_mm: out,
        link_mm: swung.link,
        mass_kg: kilograms.to_kg(),
        fits: too_short.is_none() && swung.works && stress <= takes,
        suggested: false,
        says,
    }
}

/// Of the options that fit: the next length made, and of those the rate nearest to the one wanted,
/// as a ratio; the softest where no bar is wanted.
fn suggested(options: &[SplinedOption], wanted: RollRate) -> Option<usize> {
    let fitting: Vec<usize> = (0..options.len()).filter(|index| options[*index].fits).collect();
    let lengths: Vec<Length> = fitting.iter().map(|index| options[*index].length_mm).collect();
    let made = lengths[next_made(Length::ZERO, &lengths)?];
    let wanted = wanted.to_nm_per_degree().max(f64::MIN_POSITIVE);
    fitting.into_iter().filter(|index| options[*index].length_mm <= made).min_by(|a, b| {
        let off = |index: usize| (options[index].roll_rate_nm_per_deg / wanted).ln().abs();
        off(*a).total_cmp(&off(*b))
    })
}

fn answer(form: &Sway, best: Option<&SplinedOption>, wanted: RollRate, least: Option<Length>) -> Message {
    match best {
        Some(best) => {
            let sizes = [best.diameter_mm, best.length_mm, best.arm_mm, best.link_mm];
            SwayMessage::SplinedBest {
                diameter: sizes[0],
                length: sizes[1],
                arm: sizes[2],
                link: sizes[3],
                out: best.stick_out_mm,
                share: (wanted > RollRate::ZERO)
                    .then(|| best.roll_rate_nm_per_deg / wanted.to_nm_per_degree()),
            }
            .into()
        }
        None if form.splined.bars.is_empty() => SwayMessage::SplinedWanted { wanted, least }.into(),
        None => SwayMessage::NoSplined.into(),
    }
}

fn because(
    job: &Job,
    base: &Base,
    at_one_g: Angle,
    wanted: RollRate,
    places: &Places,
    swung: Option<&ArmWithLink>,
    rate: &BarRate,
) -> Message {
    let weighed = &base.weighed;
    let station = crate::assembly::weights::station_says(job, weighed);
    let solid = swung.filter(|_| wanted > RollRate::ZERO).map(|swung| {
        let torsion = wanted / swung.per_roll.powi(2);
        let active = length_of(&job.rig.frame_width).map_or(rate.active, least_length);
        let arm = if job.sway.splined.arms.is_empty() { places.arm.length } else { swung.arm };
        [solid_for(torsion, active), active, arm]
    });
    SwayMessage::Because(Box::new(Reason {
        used_for: job.rig.used_for,
        degrees: at_one_g.to_degrees(),
        weighed: weighed.clone(),
        station,
        lever: base.lever(),
        all: rate_for_gradient(base.overturning, at_one_g),
        springs: base.this.springs,
        other: base.other.rate(),
        wanted,
        solid,
    }))
    .into()
}

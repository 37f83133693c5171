//! The schools side by side: length only, bracket only, bracket and length, with a riser or
//! with a drop. Each as a whole plan in this job's numbers.

use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::bracket::plan::{ENOUGH_DEGREES, OptionResult, Shop};
use crate::setups::moves::EyeMoves;
use derecho_core::bar::FrontView;
use derecho_core::measure::load::force;
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::{Length, Phrase};
use derecho_core::parts::{BracketEnd, BracketPart};

/// Points of a school's curve.
const CURVE_STEPS: usize = 40;

/// One school of doing it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum School {
    /// An adjustable bar centres it; the angle stays.
    LengthOnly,
    /// The axle eye is raised; the length stays.
    RiserOnly,
    /// The frame eye is dropped; the length stays.
    DropOnly,
    /// The axle eye is raised and the bar set to length.
    RiserAndLength,
    /// The frame eye is dropped and the bar set to length.
    DropAndLength,
}

impl School {
    /// In words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::LengthOnly => "length only",
            Self::RiserOnly => "riser only",
            Self::DropOnly => "drop only",
            Self::RiserAndLength => "riser and length",
            Self::DropAndLength => "drop and length",
        }
    }

    const fn end(self) -> Option<BracketEnd> {
        match self {
            Self::LengthOnly => None,
            Self::RiserOnly | Self::RiserAndLength => Some(BracketEnd::Axle),
            Self::DropOnly | Self::DropAndLength => Some(BracketEnd::Frame),
        }
    }

    const fn sets_length(self) -> bool {
        matches!(self, Self::LengthOnly | Self::RiserAndLength | Self::DropAndLength)
    }
}

/// A place on a curve of sideways motion.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CurvePoint {
    /// Travel from ride height.
    pub travel_mm: Length,
    /// Axle to the left of the body's centre.
    pub y_mm: Length,
}

/// A school with its best plan.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SchoolResult {
    /// Which.
    pub school: School,
    /// In words.
    pub name: String,
    /// The plan it comes to.
    pub option: OptionResult,
    /// Whether its bracket is among those tried; else it is the exact one, to be found or made.
    pub at_hand: bool,
    /// Where the axle is left at the driven height, + left.
    pub left_off_mm: Length,
    /// What it does and what it gives up, in this job's numbers.
    pub says: Phrase,
    /// Its sideways motion about the body's centre, droop first.
    pub curve: Vec<CurvePoint>,
}

/// The curve of a bar whose axle is at `offset` at the driven height.
fn curve(shop: &Shop<'_>, view: &FrontView, offset: Length) -> Vec<CurvePoint> {
    let (droop, bump) = shop.travel_from_driven();
    let driven = -crate::document::heights::driven_offset(&shop.job.rig);
    let (tight_low, tight_high) = view.pulled_tight();
    let (low, high) = ((-droop).max(tight_low), bump.min(tight_high));
    (0..=CURVE_STEPS)
        .map(|step| {
            let travel = low + (high - low) * (step as f64 / CURVE_STEPS as f64);
            CurvePoint { travel_mm: travel + driven, y_mm: offset + view.shift_at(travel) }
        })
        .collect()
}

pub(crate) fn schools(shop: &Shop<'_>, options: &[OptionResult], exact: Option<Length>) -> Vec<SchoolResult> {
    let all = [
        School::LengthOnly,
        School::RiserOnly,
        School::DropOnly,
        School::RiserAndLength,
        School::DropAndLength,
    ];
    all.into_iter().filter_map(|school| school_result(shop, options, exact, school)).collect()
}

fn school_result(
    shop: &Shop<'_>,
    options: &[OptionResult],
    exact: Option<Length>,
    school: School,
) -> Option<SchoolResult> {
    let sets = school.sets_length();
    let fits = |option: &&OptionResult| option.end == school.end() && (sets || option.plan.bar.is_empty());
    // Options come best first.
    let (option, at_hand) = match options.iter().find(fits) {
        Some(option) => (option.clone(), true),
        None => (exact_option(shop, school, exact?)?, false),
    };
    let moves =
        option.end.map_or(EyeMoves::default(), |end| EyeMoves::of(end, DVec3::from_array(option.move_mm)));
    let found = &shop.views.found;
    let (view, left_off) = if sets {
        (shop.view(moves)?, Length::ZERO)
    } else {
        let view = found.moved(found.length(), moves.rise(), moves.fore_aft()).ok()?;
        let carried = (found.reach() - view.reach()) * shop.side.sign() + moves.sideways();
        (view, shop.views.found_offset + carried)
    };
    Some(SchoolResult {
        name: school.word().to_owned(),
        says: says(school, &option, left_off, at_hand),
        curve: curve(shop, &view, left_off),
        left_off_mm: left_off,
        school,
        option,
        at_hand,
    })
}

/// The exact bracket, where none of that kind is tried.
fn exact_option(shop: &Shop<'_>, school: School, exact: Length) -> Option<OptionResult> {
    let end = school.end()?;
    let by = match end {
        BracketEnd::Axle => DVec3::new(0.0, 0.0, exact.to_mm()),
        BracketEnd::Frame => DVec3::new(0.0, 0.0, -exact.to_mm()),
    };
    let name = match end {
        BracketEnd::Axle => "exact riser",
        BracketEnd::Frame => "exact drop",
    };
    let bracket = BracketPart { name: name.to_owned(), end, ..BracketPart::default() };
    let bar = shop.bars.iter().find(|bar| !school.sets_length() || bar.part.is_some());
    let mut option =
        shop.option(&bracket, "to be found or made", Some((end, by)), bar.or(shop.bars.first())?)?;
    option.rank = 0;
    Some(option)
}

fn says(school: School, option: &OptionResult, left_off: Length, at_hand: bool) -> Phrase {
    let failing = option.fails.first().cloned();
    Phrase::of(|w| {
        let mut parts = Vec::new();
        let angle = degrees(option.angle_deg);
        match school {
            School::LengthOnly => parts.push(format!(
                "Centres it and leaves the bar at {angle}: it still swings {} over the travel",
                w.distance(option.peak_to_peak_mm)
            )),
            School::RiserOnly | School::DropOnly => parts.push(format!(
                "Brings the bar to {angle} and leaves the axle {}",
                match w.sideways(left_off) {
                    place if place == "centred" => "centred".to_owned(),
                    place => place,
                }
            )),
            School::RiserAndLength | School::DropAndLength => parts.push(format!(
                "Brings the bar to {angle}, centred, swinging {}",
                w.distance(option.peak_to_peak_mm)
            )),
        }
        match option.end {
            Some(BracketEnd::Axle) => parts.push(format!(
                "{:.1} times the moment into the axle tube, roll centre {} {}",
                option.loads.axle_moment_ratio,
                w.distance(option.roll_centre_change_mm),
                higher(option.roll_centre_change_mm)
            )),
            Some(BracketEnd::Frame) => parts.push(format!(
                "{:.1} times the moment into the frame rail, where brackets crack on hard use, roll centre {} {}",
                option.loads.frame_moment_ratio,
                w.distance(option.roll_centre_change_mm),
                higher(option.roll_centre_change_mm)
            )),
            None => {}
        }
        if !option.plan.drag_link.is_empty() && option.end.is_some() {
            parts.push(format!("goes with the {}", option.plan.drag_link));
        }
        if let Some(difference) = option.drag_link_difference_deg.filter(|d| d.abs().to_degrees() >= 1.5) {
            let cure = match option.end {
                Some(BracketEnd::Frame) => "a dropped pitman arm belongs with it",
                Some(BracketEnd::Axle) => "the drag link is raised at the knuckle with it",
                None => "bumps steer",
            };
            parts.push(format!("bar and drag link are {} apart: {cure}", degrees(difference)));
        }
        parts.push(format!(
            "in a left turn it {} the body by {}",
            if option.loads.jacking_left_turn_n >= 0.0 { "lifts" } else { "pulls down" },
            force(w, option.loads.jacking_left_turn_n.abs())
        ));
        if !at_hand && school != School::LengthOnly {
            parts.push("no such bracket is tried here yet: this is the exact one".to_owned());
        }
        if let Some(reason) = &failing {
            parts.push(format!("it fails: {}", reason.in_unit(w.unit())));
        }
        format!("{}.", parts.join("; "))
    })
}

/// The answer: length only where that is enough, else the best option, and why.
pub(crate) fn answer(
    options: &[OptionResult],
    schools: &[SchoolResult],
    exact: Option<Length>,
) -> (Phrase, Phrase) {
    let Some(best) = options.first() else {
        return (Phrase::plain("Nothing can be planned yet"), Phrase::default());
    };
    let chosen = options.iter().find(|option| option.chosen);
    let alone = options.iter().find(|option| option.end.is_none() && option.fails.is_empty());
    let enough = alone.filter(|option| option.angle_deg.abs().to_degrees() <= ENOUGH_DEGREES);
    let pick = chosen.or(enough).unwrap_or(best);
    let length = |w: derecho_core::measure::phrase::Words, option: &OptionResult| {
        let change = option.change_mm;
        let verb = if change > Length::ZERO { "lengthen" } else { "shorten" };
        if change.abs() < Length::from_mm(0.4) {
            "the length stays".to_owned()
        } else {
            format!("{verb} {}", w.distance(change))
        }
    };
    let says = Phrase::of(|w| {
        let set = if pick.plan.bar.is_empty() {
            length(w, pick)
        } else {
            format!("{} set to {}", pick.bar, w.fine(pick.length_mm))
        };
        if pick.end.is_none() {
            let bare = if chosen.is_some() {
                "Length only"
            } else if enough.is_some() {
                "Length only is enough"
            } else {
                "No bracket here helps"
            };
            format!("{bare}: {set}")
        } else {
            let then = if set == "the length stays" { "" } else { "then " };
            format!("{}, {then}{set}", capital(&pick.name))
        }
    });
    let because = Phrase::of(|w| {
        if let Some(option) = enough.filter(|_| chosen.is_none()) {
            return format!(
                "At {} the bar pushes the axle sideways little: {} over the whole travel. A bracket would gain little and loads frame or axle more.",
                degrees(option.angle_deg),
                w.distance(option.peak_to_peak_mm)
            );
        }
        let failing: Vec<String> = schools
            .iter()
            .filter(|school| school.school.sets_length() && school.option.end != pick.end)
            .filter_map(|school| {
                let reason = school.option.fails.first()?;
                Some(format!("{}: {}", school.name, reason.in_unit(w.unit())))
            })
            .collect();
        let level = exact.map_or_else(String::new, |exact| {
            format!(
                " On target would be {} {}.",
                w.distance(exact),
                if pick.end == Some(BracketEnd::Frame) { "of drop" } else { "of riser" }
            )
        });
        let fails = pick
            .fails
            .first()
            .map_or_else(String::new, |reason| format!(" But it fails: {}.", reason.in_unit(w.unit())));
        let others =
            if failing.is_empty() { String::new() } else { format!(" What fails: {}.", failing.join("; ")) };
        format!(
            "It stands at {} then and swings {} over the travel.{level}{others}{fails}",
            degrees(pick.angle_deg),
            w.distance(pick.peak_to_peak_mm)
        )
    });
    (says, because)
}

fn higher(change: Length) -> &'static str {
    if change < Length::ZERO { "lower" } else { "higher" }
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

//! What is to be done: everything in which the vehicle as it is planned, or as it was fitted, differs from the vehicle
//! as it came. From as it came, so that the plan of work stays when its parts are recorded as fitted.
//!
//! Not here: the steps that follow from it (`tasks`).

use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::fastener::stack::NutKind;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::{Length, Side};
use derecho_core::parts::{BarPart, BracketEnd, BracketPart};
use derecho_core::pose::joint::JointKind;

use crate::defaults;
use crate::document::bracketing::EyeBolt;
use crate::document::sway::{FrameTubes, SwayKind};
use crate::document::work::DrillForm;
use crate::document::{AxleLocation, FittedPart, HoleChoice, Job, Sway, length_of};
use crate::setups::moves::{choice, side_of};
use crate::setups::{BarState, PlannedGap, Resolved, Setup, Setups, SwaySetups};
use crate::tape::SheetResult;
use crate::work::kinds::brace::Brace;
use crate::work::kinds::bracket::{self, Bracket};
use crate::work::kinds::built_bar::BuiltBar;
use crate::work::kinds::disconnect::Disconnect;
use crate::work::kinds::drag_link::DragLink;
use crate::work::kinds::eyes::{ENDS, EyeBolt as DrawnUp, Eyes};
use crate::work::kinds::length::AdjustingEnd;
use crate::work::kinds::links::{ArmHolePlace, Links};
use crate::work::kinds::second_shim::SecondShim;
use crate::work::kinds::splined::{Splined, Tubes};
use crate::work::kinds::straps::Straps;
use crate::work::kinds::tie_rod::TieRod;
use crate::work::kinds::y_link::YLink;
use crate::work::kinds::{Change, eyes, length};

/// An eye further than this from where it was found sits in another place, mm.
const MOVED: f64 = 1e-6;

/// A length set to the nearest step is written down this near to it.
const READ: Length = Length::from_mm(0.1);

/// Keys of the bolts through the bar's eyes.
pub const BAR_BOLTS: [&str; 3] =
    [eyes::bolt_key(BracketEnd::Frame), eyes::bolt_key(BracketEnd::Axle), length::BOLT];

/// What is done to the track bar.
#[derive(Clone, Debug, PartialEq)]
pub struct BarWork {
    /// The bar that is hung in place of the old one.
    pub hangs: Option<String>,
    /// How its length is changed; None where nobody said, or it is cut and welded to length.
    pub kind: Option<AdjusterKind>,
    /// Whether it is cut and welded to length.
    pub made_to_length: bool,
    /// The length it gets, where that is another one than it has.
    pub length: Option<Length>,
    /// What sits in its eyes, frame eye first.
    pub joints: [JointKind; 2],
}

/// What is done at one end of it.
#[derive(Clone, Debug, PartialEq)]
pub struct EndWork {
    /// Which end.
    pub end: BracketEnd,
    /// What people call the hole its eye goes to; empty for where it was found.
    pub hole: String,
    /// The bracket that is fitted for it; None where the hole is in the one that is there.
    pub bracket: Option<BracketPart>,
}

impl EndWork {
    /// Whether a bracket is bolted on for it.
    pub fn bolts_on(&self) -> bool {
        self.bracket.as_ref().is_some_and(|part| part.attachment.is_bolted())
    }

    /// What comes off before its bracket goes on; None where that is nothing.
    pub fn comes_off(&self) -> Option<&str> {
        let first = self.bracket.as_ref()?.comes_off_first.trim();
        let nothing =
            first.is_empty() || ["nothing", "none"].iter().any(|no| first.to_lowercase().starts_with(no));
        (!nothing).then_some(first)
    }

    /// Whether a bracket is welded on for it.
    pub fn welds_on(&self) -> bool {
        self.bracket.as_ref().is_some_and(|part| !part.attachment.is_bolted())
    }
}

/// Everything that is to be done.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Situation {
    /// The track bar.
    pub bar: Option<BarWork>,
    /// Ends whose eye goes to another hole, frame first.
    pub ends: Vec<EndWork>,
    /// The drag-link part that is fitted.
    pub drag_link: Option<String>,
    /// Whether the drag link's sleeve is turned once the axle stands where it will: the wheel turns with the axle.
    pub turns_drag_link: bool,
    /// What is changed besides the bar, its brackets and the drag link; all of it together is [`Self::kinds`].
    pub changes: Vec<Change>,
    /// What the gap says that a bar is built to.
    pub gap: PlannedGap,
    /// Holes to drill.
    pub drills: Vec<DrillForm>,
    /// Keys of the bar's own bolts that have a castle nut, which is pinned.
    pub castle_nuts: Vec<&'static str>,
    /// Keys of the bolts that go through a bushing besides what they hold.
    pub through_bushings: Vec<String>,
    /// Whether the bracket that goes on the frame is the first one there.
    pub first_frame_bracket: bool,
}

impl Situation {
    /// Of a job.
    pub fn of(job: &Job, resolved: &Resolved) -> Self {
        let mut situation = Self {
            changes: changes(job, resolved),
            drills: job.bolt_up.drills.clone(),
            castle_nuts: castle_nuts(job),
            through_bushings: through_bushings(job),
            first_frame_bracket: job.bracket.first_frame_bracket,
            ..Self::default()
        };
        // What nobody asked for is no work of this job.
        if let Some(setups) = resolved.setups().filter(|_| !job.is_sway_alone()) {
            situation.ends = ends(job, setups);
            situation.bar = bar(job, setups);
            situation.gap = setups.gap;
            let (found, target) = (&setups.found, target(job, setups));
            situation.drag_link = (found.drag_link != target.drag_link)
                .then(|| job.drag_link_name(&target.drag_link).to_owned());
            let measured = job.hardpoints.steering.is_some() && situation.bar.is_some();
            situation.turns_drag_link = job.rig.is_steered() && (situation.drag_link.is_some() || measured);
        }
        situation
    }

    /// Whether anything is to be done at all.
    pub const fn is_nothing(&self) -> bool {
        self.bar.is_none() && self.ends.is_empty() && self.drag_link.is_none() && self.changes.is_empty()
    }

    /// Whether anything is unbolted for it; a sleeve is turned as it stands.
    pub fn undoes(&self) -> bool {
        self.bar_comes_out()
            || !self.ends.is_empty()
            || self.turns_an_end()
            || self.drag_link.is_some()
            || !self.changes.is_empty()
            || !self.drills.is_empty()
    }

    /// Every kind of work of it: those of the track bar, its brackets and the drag link, then all others.
    pub fn kinds(&self) -> Vec<Change> {
        let of_the_bar = self.length().map(Change::Length).into_iter().chain(self.eyes().map(Change::Eyes));
        let brackets = self.ends.iter().filter_map(|work| self.bracket(work)).map(Change::Bracket);
        let made = self.bar.as_ref().filter(|bar| bar.made_to_length);
        let built = made.map(|_| Change::BuiltBar(BuiltBar { tapes_gap: self.tapes_the_gap() }));
        let swapped = self
            .bar
            .as_ref()
            .filter(|bar| bar.hangs.is_some() && bar.length.is_some() && !bar.made_to_length);
        let (fits, turns) = (self.drag_link.is_some(), self.turns_drag_link);
        let drag_link = (fits || turns).then_some(Change::DragLink(DragLink { fits, turns }));
        of_the_bar
            .chain(brackets)
            .chain(built)
            .chain(swapped.map(|_| Change::BarSwap))
            .chain(drag_link)
            .chain(self.changes.iter().cloned())
            .collect()
    }

    fn length(&self) -> Option<length::Length> {
        let bar = self.bar.as_ref()?;
        bar.length.filter(|_| !bar.made_to_length)?;
        // A single adjuster is turned with one of its eyes free; a sleeve only where it is out anyway.
        let free = if self.bar_comes_out() {
            bar.kind != Some(AdjusterKind::Turnbuckle)
        } else {
            !self.ends.is_empty() && bar.kind == Some(AdjusterKind::OneEnd)
        };
        // Which end turns nobody said: the one that asks for more.
        let end = self.turns_an_end().then(|| AdjustingEnd {
            bushing: bar.joints.into_iter().any(is_bushing),
            castle: self.castle_nuts.contains(&length::BOLT),
        });
        Some(length::Length { bench: free && bar.hangs.is_none(), sleeve: self.turns_the_sleeve(), end })
    }

    fn eyes(&self) -> Option<Eyes> {
        let out = self.bar_comes_out();
        let eased: Vec<BracketEnd> = ENDS.into_iter().filter(|end| self.is_eased(*end)).collect();
        let hung: Vec<BracketEnd> = ENDS.into_iter().filter(|end| self.is_undone(*end)).collect();
        let tight = self.bar.iter().flat_map(|bar| {
            ENDS.into_iter().zip(bar.joints).filter(|(end, _)| eased.contains(end) || hung.contains(end))
        });
        let tight = tight.map(|(end, joint)| DrawnUp {
            end,
            bushing: is_bushing(joint),
            castle: self.castle_nuts.contains(&eyes::bolt_key(end)),
        });
        let eyes = Eyes {
            // A bar built to its gap hangs where there was none.
            out: out && self.bar.as_ref().is_none_or(|bar| bar.hangs.as_deref() != Some("")),
            off: self.ends.first().filter(|_| !out).map(|work| work.end),
            tight: tight.collect(),
            eased,
            hung,
        };
        (eyes != Eyes::default()).then_some(eyes)
    }

    fn bracket(&self, work: &EndWork) -> Option<Bracket> {
        work.bracket.as_ref()?;
        let end = work.end;
        let through = |bolts: bracket::Bolts| self.through_bushings.iter().any(|key| key == bolts.key(end));
        Some(Bracket {
            end,
            welds: work.welds_on(),
            comes_off: work.comes_off().is_some(),
            through_bushing: bracket::Bolts::ALL.map(through),
            first: end == BracketEnd::Frame && self.first_frame_bracket,
        })
    }

    /// The sway links, where something is done to them.
    pub fn links(&self) -> Option<&Links> {
        self.changes.iter().find_map(|change| match change {
            Change::Links(links) => Some(links),
            _ => None,
        })
    }

    /// Whether the sway bar itself is installed.
    pub fn installs_sway_bar(&self) -> bool {
        let bar = |change: &Change| {
            matches!(change, Change::OnePiece | Change::Splined(_) | Change::TwoRate { .. })
        };
        self.changes.iter().any(bar)
    }

    /// The tubes that a splined sway bar is to run in, where they are welded in.
    pub fn tubes(&self) -> Option<Tubes> {
        self.changes.iter().find_map(|change| match change {
            Change::Splined(splined) => splined.tubes,
            _ => None,
        })
    }

    /// The limit straps that are installed.
    pub fn straps(&self) -> Option<Straps> {
        self.changes.iter().find_map(|change| match change {
            Change::Straps(straps) => Some(*straps),
            _ => None,
        })
    }

    /// The tie rod, where it moves.
    pub fn tie_rod(&self) -> Option<TieRod> {
        self.changes.iter().find_map(|change| match change {
            Change::TieRod(tie_rod) => Some(*tie_rod),
            _ => None,
        })
    }

    /// The Y-link, where something is done to it.
    pub fn y_link(&self) -> Option<YLink> {
        self.changes.iter().find_map(|change| match change {
            Change::YLink(link) => Some(*link),
            _ => None,
        })
    }

    /// What is done at an end.
    pub fn at(&self, end: BracketEnd) -> Option<&EndWork> {
        self.ends.iter().find(|work| work.end == end)
    }

    /// Whether the whole bar comes out: another is hung, or both its eyes move.
    pub fn bar_comes_out(&self) -> bool {
        self.ends.len() == 2 || self.bar.as_ref().is_some_and(|bar| bar.hangs.is_some())
    }

    /// Whether the eye of an end is unbolted.
    pub fn is_undone(&self, end: BracketEnd) -> bool {
        self.bar_comes_out() || self.at(end).is_some()
    }

    /// Whether the bolt of an eye that stays in its hole is eased: its rubber would be wound up by the angle that the
    /// other eye's new place gives the bar.
    pub fn is_eased(&self, end: BracketEnd) -> bool {
        !self.ends.is_empty()
            && !self.is_undone(end)
            && self
                .bar
                .as_ref()
                .is_some_and(|bar| bar.joints[usize::from(end == BracketEnd::Axle)] == JointKind::Rubber)
    }

    /// Whether the bar's sleeve is turned with both eyes bolted, on the weight.
    pub fn turns_the_sleeve(&self) -> bool {
        self.bar.as_ref().is_some_and(|bar| {
            bar.length.is_some()
                && bar.hangs.is_none()
                && !bar.made_to_length
                && (bar.kind == Some(AdjusterKind::Turnbuckle) || bar.kind.is_none())
        })
    }

    /// Whether the whole axle is mocked up, strapped and without its springs: for what is welded, or built to a gap. A
    /// bracket that is bolted on needs its holes reached and cleared, no more.
    pub fn mocks_up_the_axle(&self) -> bool {
        self.bar.as_ref().is_some_and(|bar| bar.made_to_length) || self.ends.iter().any(EndWork::welds_on)
    }

    /// Whether the gap of a built bar is measured once its brackets are on: none was there before.
    pub fn tapes_the_gap(&self) -> bool {
        self.bar.as_ref().is_some_and(|bar| bar.made_to_length) && !self.ends.is_empty()
    }

    /// Whether one end of a bar that stays in is unbolted to turn it.
    pub fn turns_an_end(&self) -> bool {
        self.ends.is_empty()
            && self.bar.as_ref().is_some_and(|bar| {
                bar.hangs.is_none() && bar.kind == Some(AdjusterKind::OneEnd) && bar.length.is_some()
            })
    }
}

/// The bar's own bolts whose nut is a castle nut.
fn castle_nuts(job: &Job) -> Vec<&'static str> {
    BAR_BOLTS.into_iter().filter(|key| nut(job, key) == NutKind::Castle).collect()
}

/// The eye that a bolt goes through; None for a bolt of no eye.
pub(super) fn end_of(key: &str) -> Option<BracketEnd> {
    [BracketEnd::Frame, BracketEnd::Axle].into_iter().find(|end| eyes::bolt_key(*end) == key)
}

/// The bolt of the eye that a key names, as stage Bracket has it; the one of both where it names none.
pub(super) fn eye_bolt<'a>(job: &'a Job, key: &str) -> &'a EyeBolt {
    end_of(key).map_or(&job.bracket.bolt, |end| job.bracket.bolt_at(end))
}

/// The nut of a bolt of the bar: as typed for it, else as stage Bracket has the eye's bolt.
fn nut(job: &Job, key: &str) -> NutKind {
    let form = job.bolt_up.fastener(key);
    let of_its_own = form.is_some_and(|form| form.thread.is_some());
    let of_the_eye = if of_its_own { NutKind::default() } else { eye_bolt(job, key).nut };
    form.and_then(|form| form.nut).unwrap_or(of_the_eye)
}

fn through_bushings(job: &Job) -> Vec<String> {
    let through = job.bolt_up.fasteners.iter().filter(|form| form.through_bushing);
    through.map(|form| form.key.clone()).collect()
}

/// Whether a Y-link's legs are turned in this job: it is fitted in it, was worked on, or reads off centre. One that is
/// found centred is left alone.
fn turns_legs(job: &Job, resolved: &Resolved) -> bool {
    let off = |sheet: &SheetResult| {
        sheet.usable && sheet.centring.as_ref().is_some_and(|read| read.answer == Answer::OffCentre)
    };
    let converts = job.installs(FittedPart::YLink);
    let there = job.rig.axle_location == Some(AxleLocation::YLink);
    (there || converts)
        && (converts
            || !job.bracket.conversion.is_empty()
            || !job.setups.rounds.is_empty()
            || resolved.sheets.iter().rev().take(1).any(off))
}

/// As it is to be: as it was set where that is the plan, else as it is planned. A plan that is fitted in part alone is
/// still the plan.
fn target<'a>(job: &Job, setups: &'a Setups) -> &'a Setup {
    if job.setups.plans.chosen.is_some() && setups.plan.differs(&setups.fitted) {
        &setups.plan
    } else {
        setups.other()
    }
}

/// The hole an end's eye goes to: as the plan says, else as it was recorded.
fn hole(job: &Job, end: BracketEnd) -> HoleChoice {
    let planned = job.setups.plans.chosen.as_ref().and_then(|plan| choice(plan, end));
    let fitted = job.setups.rounds.iter().rev().flat_map(|round| round.moved.iter().rev());
    let fitted = fitted.filter(|moved| moved.end == end).map(|moved| &moved.to);
    planned.into_iter().chain(fitted).next().cloned().unwrap_or_default()
}

fn ends(job: &Job, setups: &Setups) -> Vec<EndWork> {
    let target = target(job, setups);
    let moves = target.moves.since(setups.found.moves);
    [BracketEnd::Frame, BracketEnd::Axle]
        .into_iter()
        .filter(|end| moves.at(*end).length() > MOVED || target.in_place.at(*end).is_some())
        .map(|end| {
            let hole = hole(job, end);
            let bracket = job.bracket_part(end, &hole.bracket).cloned();
            EndWork { end, bracket, hole: job.hole_name(end, &hole).to_owned() }
        })
        .collect()
}

/// The length a step names: what was wanted, where it was set as wanted. A tape that reads it to its graduation does not
/// change the plan, and neither does an adjuster that stands in the step nearest to it.
fn as_wanted(job: &Job, bar: &BarState, length: Length) -> Length {
    let step = bar
        .adjuster
        .as_ref()
        .and_then(|adjuster| facts_within(adjuster, bar.length, length, Length::ZERO).step_mm);
    let near = step.map_or(defaults::AS_WANTED, |step| defaults::AS_WANTED.max(step.abs() / 2.0 + READ));
    // What went in since, such as a brace, changed nothing about it.
    let wanted = job.setups.rounds.iter().rev().find_map(|round| round.wanted_mm).map(Length::from_mm);
    wanted.filter(|wanted| (*wanted - length).abs() <= near).unwrap_or(length)
}

fn bar(job: &Job, setups: &Setups) -> Option<BarWork> {
    let (found, target) = (&setups.found, target(job, setups));
    let hangs = (target.bar.id != found.bar.id).then(|| target.bar.name.clone());
    let kind = target.bar.adjuster.as_ref().map(|adjuster| adjuster.kind);
    let change = (target.view.length() - found.view.length()).abs();
    // A bar built to its gap is made, and hung, as it was reckoned.
    let made_to_length = target.bar.made_to_length || setups.known.built;
    let fixed = kind == Some(AdjusterKind::Fixed) && !made_to_length;
    let length = (made_to_length || (!fixed && (hangs.is_some() || change > defaults::AS_WANTED)))
        .then(|| as_wanted(job, &target.bar, target.view.length()));
    let moved = !target.moves.since(found.moves).is_none() || target.in_place != found.in_place;
    if hangs.is_none() && length.is_none() && !moved {
        return None;
    }
    let part: Option<&BarPart> = hangs.as_ref().and_then(|_| job.bar_part(&target.bar.id));
    let body = &job.hardpoints.bar;
    let joints = part.map_or_else(
        || [&body.frame_joint, &body.axle_joint].map(|joint| joint.kind.unwrap_or_default()),
        |part| [part.frame_joint, part.axle_joint],
    );
    let hangs = if setups.known.built { Some(hangs.unwrap_or_default()) } else { hangs };
    Some(BarWork { hangs, kind, made_to_length, length, joints })
}

/// Everything that is a kind of work of its own.
fn changes(job: &Job, resolved: &Resolved) -> Vec<Change> {
    let mut changes = sway_changes(job, &resolved.sway);
    let brace = job.bracket.brace.as_ref().filter(|_| job.installs(FittedPart::Brace));
    changes.extend(brace.map(|brace| Change::Brace(Brace { name: brace.name.clone() })));
    let straps = job.rig.straps.as_ref().filter(|_| job.installs(FittedPart::Straps));
    changes.extend(straps.map(|form| {
        let [length, at_droop, at_driven] = [&form.length, &form.at_droop, &form.at_driven].map(length_of);
        Change::Straps(Straps { length, at_droop, at_driven })
    }));
    let tie_rod = job.hardpoints.tie_rod.as_ref().filter(|_| job.installs(FittedPart::TieRod));
    changes.extend(tie_rod.and_then(|form| {
        Some(Change::TieRod(TieRod { to: form.to?, by: length_of(&form.by), seats: form.seats }))
    }));
    if turns_legs(job, resolved) {
        let conversion = &job.bracket.conversion;
        let converts = job.installs(FittedPart::YLink);
        changes.push(Change::YLink(YLink { converts, spacers: !conversion.is_empty() }));
    }
    changes
}

/// The hole of the sway arm in use, counted from the stiff end.
fn arm_hole(sway: &Sway) -> Option<ArmHolePlace> {
    let (number, of) = sway.from_the_stiff_end(&sway.hole)?;
    Some(ArmHolePlace { number, of, arm: sway.arm()? })
}

fn tubes(form: &FrameTubes) -> Tubes {
    Tubes {
        outside: length_of(&form.outside),
        below_edge: length_of(&form.below_edge),
        from_cross_member: length_of(&form.from_cross_member),
        inner_plates: form.inner_plates,
    }
}

fn sway_changes(job: &Job, sway: &SwaySetups) -> Vec<Change> {
    let Some(kind) = sway.plan.kind.filter(|kind| *kind != SwayKind::None) else { return Vec::new() };
    let fits_bar = job.installs(FittedPart::SwayBar);
    let bar = match kind {
        SwayKind::OnePiece => Some(Change::OnePiece),
        SwayKind::Splined => {
            Some(Change::Splined(Splined { tubes: sway.plan.splined.tubes.as_ref().map(tubes) }))
        }
        SwayKind::TwoRate => Some(Change::TwoRate { powered: false }),
        SwayKind::Powered => Some(Change::TwoRate { powered: true }),
        SwayKind::None => None,
    };
    let pins = &sway.plan.pins;
    let disconnect = job.installs(FittedPart::Disconnect).then(|| Disconnect {
        presses: pins.eye_bore.is_some(),
        stows: pins.stow != Default::default() || pins.stowed_room.is_some(),
    });
    let shim = length_of(&sway.plan.shim).filter(|_| job.installs(FittedPart::SecondShim));
    let shim = shim.map(|thickness| SecondShim {
        thickness,
        side: sway.plan.shim_side.map(Side::other),
        with_the_bar: fits_bar,
    });
    let links = links(sway, fits_bar, disconnect.is_some());
    let bar = bar.filter(|_| fits_bar).into_iter();
    bar.chain(links.map(Change::Links))
        .chain(disconnect.map(Change::Disconnect))
        .chain(shim.map(Change::SecondShim))
        .collect()
}

/// What is done to the links: with a bar or a disconnect they come off and go on as they are.
fn links(sway: &SwaySetups, fits_bar: bool, pinned: bool) -> Option<Links> {
    let (then, now) = (length_of(&sway.found.link), length_of(&sway.plan.link));
    let link = now.filter(|now| then.is_none_or(|then| (*now - then).abs() > defaults::AS_WANTED));
    let place = |form: &Sway| form.place_of(&form.hole);
    let moved = place(&sway.found) != place(&sway.plan);
    let hole = moved.then(|| arm_hole(&sway.plan)).flatten();
    let left_longer = length_of(&sway.plan.left_longer).filter(|_| sway.plan.preload_wanted);
    let left_longer = left_longer.unwrap_or(Length::ZERO);
    let touched = fits_bar || pinned || link.is_some() || hole.is_some();
    touched.then_some(Links { length: link, fixed: sway.plan.links_fixed, hole, left_longer, pinned })
}

/// Whether a bushing is wound up for good where it is tightened at another height than it is driven at.
pub const fn is_bushing(joint: JointKind) -> bool {
    matches!(joint, JointKind::Rubber | JointKind::Polyurethane)
}

/// The side of the vehicle an end's eye is on, in words.
pub fn side_word(job: &Job, end: BracketEnd) -> &'static str {
    job.rig.frame_eye_side.map_or("", |side| side_of(end, side).word())
}

/// What is bored, where its size is known.
pub fn drill_size(drill: &DrillForm) -> Option<Length> {
    length_of(&drill.size)
}

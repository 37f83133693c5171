//! The job itself: what it is called, what is complained about, and its parts.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use super::DOCUMENT_VERSION;
use super::bracketing::Bracketing;
use super::diagnosis::Diagnosis;
use super::hardpoints::Hardpoints;
use super::ids::RoundId;
use super::proof::Proof;
use super::purpose::Purpose;
use super::rig::Rig;
use super::setups::{FittedPart, Setups};
use super::sheets::Sheet;
use super::sway::{Sway, SwayKind};
use super::vehicle::Vehicle;
use super::work::Work;

/// Marks a file as a job.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub enum Format {
    /// The only one.
    #[default]
    #[serde(rename = "derecho-job")]
    DerechoJob,
}

/// One end of one vehicle being worked on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Job {
    /// Always `derecho-job`.
    pub format: Format,
    /// The version of this document's form.
    pub version: u32,
    /// What the job is called in the job list.
    pub title: String,
    /// Free notes.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub notes: String,
    /// What is to be done. Empty is a job nobody said it of: every stage is shown.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub to_do: Vec<Purpose>,
    /// Whether the stages this work does not need are shown as well.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub all_stages: bool,
    /// What is complained about, asked again at the end.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub complaints: Vec<Complaint>,
    /// Who holds what.
    #[serde(default)]
    pub rig: Rig,
    /// Where the links are, what they end in, what stands in their way.
    #[serde(default, skip_serializing_if = "Hardpoints::is_empty")]
    pub hardpoints: Hardpoints,
    /// What the bar's angle is aimed at, the parts tried, the plan chosen.
    #[serde(default, skip_serializing_if = "Bracketing::is_empty")]
    pub bracket: Bracketing,
    /// What the vehicle weighs and stands on.
    #[serde(default, skip_serializing_if = "Vehicle::is_empty")]
    pub vehicle: Vehicle,
    /// The sway bar and its links.
    #[serde(default, skip_serializing_if = "Sway::is_empty")]
    pub sway: Sway,
    /// Sheets of readings, oldest first.
    #[serde(default)]
    pub sheets: Vec<Sheet>,
    /// The bar as found, its adjuster, and the lengths it was set to since.
    #[serde(default)]
    pub setups: Setups,
    /// What was done of the work.
    #[serde(default, skip_serializing_if = "Work::is_empty")]
    pub bolt_up: Work,
    /// What was looked at to find a cause, and the causes found.
    #[serde(default, skip_serializing_if = "Diagnosis::is_empty")]
    pub diagnosis: Diagnosis,
    /// What was looked at, driven and agreed afterwards.
    #[serde(default, skip_serializing_if = "Proof::is_empty")]
    pub proof: Proof,
    /// Present once the job was settled.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub settled: Option<Settled>,
}

impl Job {
    /// Whether the sway bar is all this job is about: it was said so, and nothing else was set or chosen.
    #[must_use]
    pub fn is_sway_alone(&self) -> bool {
        !self.to_do.is_empty()
            && self.to_do.iter().all(|purpose| purpose.is_sway())
            && self.setups.axle_rounds().is_empty()
            && self.setups.plans.chosen.is_none()
    }

    /// Whether something besides bar, brackets and drag link is installed in this job, and it was told what it is. A
    /// conversion to a Y-link is by what the job is for.
    #[must_use]
    pub fn installs(&self, part: FittedPart) -> bool {
        let is_told = match part {
            FittedPart::YLink => return self.to_do.contains(&Purpose::ConvertToYLink),
            FittedPart::SwayBar | FittedPart::Disconnect => {
                self.sway.kind.is_some_and(|kind| kind != SwayKind::None)
            }
            FittedPart::SecondShim => self.sway.shim.is_some(),
            FittedPart::Brace => self.bracket.brace.is_some(),
            FittedPart::Straps => self.rig.straps.is_some(),
            FittedPart::TieRod => {
                let form = self.hardpoints.tie_rod.as_ref();
                self.rig.is_steered() && form.is_some_and(|form| form.to.is_some())
            }
        };
        is_told && self.setups.plans.parts.contains(&part)
    }

    /// Whether that is on record as installed.
    #[must_use]
    pub fn has_installed(&self, part: FittedPart) -> bool {
        self.setups.rounds.iter().any(|round| round.parts.contains(&part))
    }

    /// Whether a sheet was read with everything in that the axle is held by now: with a Y-link in place of the bar, where
    /// one is put in.
    #[must_use]
    pub fn reads_the_axle_as_it_is_held(&self, after: &RoundId) -> bool {
        if !self.installs(FittedPart::YLink) {
            return true;
        }
        let hung = self.setups.rounds.iter().position(|round| round.parts.contains(&FittedPart::YLink));
        hung.is_some_and(|place| self.setups.rounds_after(after) > place)
    }

    /// What is still to be installed, or to be put on record.
    #[must_use]
    pub fn not_installed(&self) -> Vec<FittedPart> {
        let open = |part: &FittedPart| self.installs(*part) && !self.has_installed(*part);
        FittedPart::ALL.into_iter().filter(open).collect()
    }

    /// An empty job.
    #[must_use]
    pub fn new(title: &str) -> Self {
        Self {
            format: Format::DerechoJob,
            version: DOCUMENT_VERSION,
            title: title.to_owned(),
            notes: String::new(),
            to_do: Vec::new(),
            all_stages: false,
            complaints: Vec::new(),
            rig: Rig::default(),
            hardpoints: Hardpoints::default(),
            bracket: Bracketing::default(),
            vehicle: Vehicle::default(),
            sway: Sway::default(),
            sheets: Vec::new(),
            setups: Setups::default(),
            bolt_up: Work::default(),
            diagnosis: Diagnosis::default(),
            proof: Proof::default(),
            settled: None,
        }
    }
}

/// A complaint and how it stands after the work.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Complaint {
    /// In the owner's words.
    pub text: String,
    /// What it is about; heard by the stages it concerns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub about: Option<ComplaintAbout>,
    /// Asked again after the road test.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub after: Option<ComplaintAfter>,
}

impl Complaint {
    /// Whether it is that the vehicle steps sideways: said so, or in words that mean it.
    #[must_use]
    pub fn is_side_stepping(&self) -> bool {
        const WORDS: [&str; 5] = ["side-step", "sidestep", "steps sideways", "hops", "sideways over"];
        let text = self.text.to_lowercase();
        self.about == Some(ComplaintAbout::SideStepping)
            || (self.about.is_none() && WORDS.iter().any(|word| text.contains(word)))
    }
}

/// What a complaint is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ComplaintAbout {
    /// One tyre sticks out further.
    OffCentre,
    /// It steps or hops sideways over bumps, or turns one way unlike the other.
    SideStepping,
    /// It wanders.
    Wander,
    /// It wobbles.
    Wobble,
    /// It rocks on after a swerve.
    Rocking,
    /// It leans in bends.
    LeansInBends,
    /// A tyre rubs.
    Rub,
    /// It clunks.
    Clunk,
    /// The steering wheel is crooked.
    WheelCrooked,
    /// A wheel lifts too early off the road.
    LiftsEarly,
}

impl ComplaintAbout {
    /// Every one.
    pub const ALL: [Self; 10] = [
        Self::OffCentre,
        Self::SideStepping,
        Self::Wander,
        Self::Wobble,
        Self::Rocking,
        Self::LeansInBends,
        Self::Rub,
        Self::Clunk,
        Self::WheelCrooked,
        Self::LiftsEarly,
    ];
}

/// How a complaint stands after the road test.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ComplaintAfter {
    /// Not noticed any more.
    Gone,
    /// Less than before.
    Better,
    /// As before.
    Same,
    /// More than before.
    Worse,
}

/// The frozen copy of the results a job was settled on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Settled {
    /// When, in UTC.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// The version of the rules that computed them.
    pub core_version: String,
    /// The results, as `derecho solve` prints them.
    #[schema(value_type = Object)]
    pub results: Value,
}

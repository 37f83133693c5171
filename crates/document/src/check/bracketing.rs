//! Parts tried, the bolt, the built bar.

use std::fmt::Display;

use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::fastener::{Hand, Thread};
use derecho_core::measure::{Length, TapeEntry};
use derecho_core::parts::{BarPart, BracketPart, DragLinkPart, JointPart, KitPart, Part};

use super::checker::{Checker, FieldError, LONGEST_LIST, LONGEST_NAME, MOST_HOLES};
use crate::HeightsFrom;
use crate::bracketing::{BuilderForm, EyeBolt};
use crate::{Bracketing, Rig};

impl Checker {
    pub(super) fn bracket(&mut self, form: &Bracketing, rig: &Rig) {
        let at = "/bracket";
        self.list(format_args!("{at}/bars"), form.bars.len(), MOST_HOLES);
        self.list(format_args!("{at}/brackets"), form.brackets.len(), MOST_HOLES);
        self.list(format_args!("{at}/drag_links"), form.drag_links.len(), MOST_HOLES);
        self.list(format_args!("{at}/joints"), form.joints.len(), MOST_HOLES);
        let names: [(&str, Vec<&str>); 3] = [
            ("bars", form.bars.iter().map(|part| part.name.as_str()).collect()),
            ("brackets", form.brackets.iter().map(|part| part.name.as_str()).collect()),
            ("drag_links", form.drag_links.iter().map(|part| part.name.as_str()).collect()),
        ];
        for (list, names) in names {
            for (index, name) in names.iter().enumerate() {
                let pointer = format!("{at}/{list}/{index}/name");
                self.text(&pointer, name, LONGEST_NAME);
                if name.trim().is_empty() {
                    self.fault(&pointer, "name_missing", "A part needs a name, such as three-hole drop.");
                }
            }
        }
        self.ids(format_args!("{at}/bars"), form.bars.iter().map(|part| part.id.as_str()));
        self.ids(format_args!("{at}/brackets"), form.brackets.iter().map(|part| part.id.as_str()));
        self.ids(format_args!("{at}/drag_links"), form.drag_links.iter().map(|part| part.id.as_str()));
        for (index, bracket) in form.brackets.iter().enumerate() {
            self.ids(
                format_args!("{at}/brackets/{index}/holes"),
                bracket.holes.iter().map(|hole| hole.id.as_str()),
            );
            self.bracket_part(format_args!("{at}/brackets/{index}"), bracket);
        }
        for (index, bar) in form.bars.iter().enumerate() {
            self.bar_part(format_args!("{at}/bars/{index}"), bar);
        }
        for (index, part) in form.drag_links.iter().enumerate() {
            self.drag_link_part(format_args!("{at}/drag_links/{index}"), part);
        }
        for (index, part) in form.joints.iter().enumerate() {
            self.joint_part(format_args!("{at}/joints/{index}"), part);
        }
        self.builder(format_args!("{at}/builder"), &form.builder);
        self.list(format_args!("{at}/conversion/pinion"), form.conversion.pinion.len(), MOST_HOLES);
        for (index, reading) in form.conversion.pinion.iter().enumerate() {
            self.height(format_args!("{at}/conversion/pinion/{index}/height"), &reading.height, rig);
        }
        self.size(format_args!("{at}/swing_limit"), form.swing_limit.as_ref());
        self.size(format_args!("{at}/first_bracket_room"), form.first_bracket_room.as_ref());
        self.size(format_args!("{at}/stock_length"), form.stock_length.as_ref());
        self.size(format_args!("{at}/ear_width"), form.ear_width.as_ref());
        self.eye_bolt("/bracket/bolt", &form.bolt);
        for (eye, fit) in [("frame_eye", &form.frame_eye), ("axle_eye", &form.axle_eye)] {
            self.size(format_args!("{at}/{eye}/ear_width"), fit.ear_width.as_ref());
            self.eye_bolt(&format!("{at}/{eye}/bolt"), &fit.bolt);
        }
    }

    fn builder(&mut self, at: std::fmt::Arguments<'_>, form: &BuilderForm) {
        for (field, entry) in [
            ("gap", &form.gap),
            ("gap_in_new_holes", &form.gap_in_new_holes),
            ("frame_shell", &form.frame_shell),
            ("axle_shell", &form.axle_shell),
            ("stock", &form.stock),
        ] {
            self.size(format_args!("{at}/{field}"), entry.as_ref());
        }
    }

    fn eye_bolt(&mut self, at: &str, bolt: &EyeBolt) {
        self.distance(format_args!("{at}/play"), bolt.play.as_ref());
        for (field, entry) in [
            ("nut_height", &bolt.nut_height),
            ("diameter", &bolt.diameter),
            ("hole", &bolt.hole),
            ("ear", &bolt.ear),
            ("washer", &bolt.washer),
            ("length", &bolt.length),
            ("threaded", &bolt.threaded),
            ("room_at_head", &bolt.room_at_head),
            ("room_at_nut", &bolt.room_at_nut),
        ] {
            self.size(format_args!("{at}/{field}"), entry.as_ref());
        }
        if let (Some(threaded), Some(length)) = (&bolt.threaded, &bolt.length)
            && threaded.number().nanometres() > length.number().nanometres()
        {
            self.fault(
                format_args!("{at}/threaded"),
                "more_thread_than_there_is",
                "The thread is longer than the bolt. Measure both from under the head.",
            );
        }
    }

    /// Shortest and longest, one way round.
    pub(super) fn range(
        &mut self,
        at: impl Display + Copy,
        least: Option<&TapeEntry>,
        most: Option<&TapeEntry>,
    ) {
        self.size(format_args!("{at}/made_min"), least);
        self.size(format_args!("{at}/made_max"), most);
        if let (Some(least), Some(most)) = (least, most)
            && least.number().nanometres() > most.number().nanometres()
        {
            self.fault(
                format!("{at}/made_min"),
                "range_turned_round",
                "The shortest length is longer than the longest. Swap them.",
            );
        }
    }

    /// A hand that a thread's designation says and one that was picked must be the same.
    pub(super) fn hand(
        &mut self,
        pointer: impl Display + Copy,
        thread: Option<&Thread>,
        picked: Option<Hand>,
    ) {
        if let (Some(stamped), Some(picked)) = (thread.and_then(Thread::hand), picked)
            && stamped != picked
        {
            self.fault(
                pointer,
                "hands_disagree",
                "This thread size and the hand you chose disagree. Look at the thread and correct one.",
            );
        }
    }

    fn bar_part(&mut self, at: impl Display + Copy, bar: &BarPart) {
        self.range(at, bar.made_min.as_ref(), bar.made_max.as_ref());
        for (field, entry) in [
            ("outside", &bar.outside),
            ("wall", &bar.wall),
            ("shank", &bar.shank),
            ("tapped_depth", &bar.tapped_depth),
            ("least_engagement", &bar.least_engagement),
        ] {
            self.size(format_args!("{at}/{field}"), entry.as_ref());
        }
        self.distance(format_args!("{at}/bend"), bar.bend.as_ref());
        if let (Some(wall), Some(outside)) = (&bar.wall, &bar.outside)
            && outside.number().nanometres() > 0
            && wall.number().nanometres() * 2 > outside.number().nanometres()
        {
            self.fault(
                format!("{at}/wall"),
                "wall_too_thick",
                "The wall is thicker than half of the bar. Check both, or leave the wall empty for a solid bar.",
            );
        }
        self.hand(format_args!("{at}/hand"), bar.thread.as_ref(), bar.hand);
        self.hand(format_args!("{at}/second_hand"), bar.second_thread.as_ref(), bar.second_hand);
    }

    /// What turns a bar's length must be able to. Of the library alone: a job keeps what it took in before this was
    /// asked.
    fn turning(&mut self, bar: &BarPart) {
        let turnbuckle = bar.adjuster == Some(AdjusterKind::Turnbuckle);
        if !turnbuckle && (bar.second_thread.is_some() || bar.second_hand.is_some()) {
            let field = if bar.second_thread.is_some() { "second_thread" } else { "second_hand" };
            self.fault(
                format_args!("/{field}"),
                "second_thread_of_one",
                "Only a turnbuckle has a second thread. Choose turnbuckle, or leave the second thread and its hand empty.",
            );
        }
        let of = |thread: &Option<Thread>, hand: Option<Hand>| {
            let thread = thread.as_ref()?;
            Some((thread.pitch(), thread.hand().or(hand)?))
        };
        let first = of(&bar.thread, bar.hand);
        let second =
            of(if bar.second_thread.is_some() { &bar.second_thread } else { &bar.thread }, bar.second_hand);
        if turnbuckle
            && let (Some((pitch, hand)), Some((other, other_hand))) = (first, second)
            && hand == other_hand
            && (pitch - other).abs() < Length::from_mm(1e-6)
        {
            self.fault(
                "/second_hand",
                "turning_does_nothing",
                "Both ends have the same hand and pitch: turning would not change the length. Look at both ends again.",
            );
        }
        let in_nanometres =
            |entry: &Option<TapeEntry>| entry.as_ref().map(|entry| entry.number().nanometres());
        if let (Some(least), Some(shank)) = (in_nanometres(&bar.least_engagement), in_nanometres(&bar.shank))
            && least > shank
        {
            self.fault(
                "/least_engagement",
                "more_thread_than_there_is",
                "This asks for more thread engaged than the shank has. Check both.",
            );
        }
    }

    /// A nut of another thread strips its bolt's.
    fn own_nut(&mut self, bolt: Option<&Thread>, nut: Option<&Thread>) {
        if let (Some(bolt), Some(nut)) = (bolt, nut)
            && !nut.takes(bolt)
        {
            self.fault(
                "/nut_thread",
                "wrong_nut",
                "This nut does not fit this thread: diameter, pitch and hand must match. Check both.",
            );
        }
    }

    fn kit(&mut self, kit: &KitPart) {
        self.list("/holds", kit.holds.len(), LONGEST_LIST);
        self.list("/fasteners", kit.fasteners.len(), LONGEST_LIST);
        self.list("/order", kit.order.len(), LONGEST_LIST);
        for (index, line) in kit.holds.iter().enumerate() {
            self.named(format_args!("/holds/{index}/name"), &line.name, "Say what this is.");
            if line.count == 0 {
                self.fault(format_args!("/holds/{index}/count"), "nought", "Enter how many, or remove it.");
            }
        }
        for (index, fastener) in kit.fasteners.iter().enumerate() {
            let at = format!("/fasteners/{index}/place");
            self.named(&at, &fastener.place, "Say where it goes, such as frame/main.");
            if kit.fasteners[..index].iter().any(|other| other.place == fastener.place) {
                self.fault(&at, "key_twice", "Two fasteners in this kit go in the same place. Remove one.");
            }
        }
    }

    fn bracket_part(&mut self, at: impl Display + Copy, bracket: &BracketPart) {
        self.holes(format_args!("{at}/holes"), &bracket.holes);
        self.size(format_args!("{at}/attachment_spacing"), bracket.attachment_spacing.as_ref());
    }

    fn drag_link_part(&mut self, at: impl Display + Copy, part: &DragLinkPart) {
        self.distance(format_args!("{at}/raises_axle_end"), part.raises_axle_end.as_ref());
        self.distance(format_args!("{at}/drops_pitman_end"), part.drops_pitman_end.as_ref());
    }

    fn joint_part(&mut self, at: impl Display + Copy, part: &JointPart) {
        self.size(format_args!("{at}/width"), part.width.as_ref());
        self.size(format_args!("{at}/bolt"), part.bolt.as_ref());
    }
}

/// Whether a part of the library makes sense: every fault with its place in the part.
#[must_use]
pub fn check_part(part: &Part) -> Vec<FieldError> {
    let mut checker = Checker { faults: Vec::new(), heights_from: HeightsFrom::Floor };
    match part {
        Part::Bar(bar) => {
            checker.bar_part("", bar);
            checker.turning(bar);
        }
        Part::Bracket(bracket) => checker.bracket_part("", bracket),
        Part::Joint(joint) => checker.joint_part("", joint),
        Part::DragLink(part) => checker.drag_link_part("", part),
        Part::Brace(part) => {
            checker.size("/below_rail", part.below_rail.as_ref());
            checker.size("/length", part.length.as_ref());
        }
        Part::Shim(part) => checker.size("/thickness", part.thickness.as_ref()),
        Part::SwayBar(part) => {
            checker.size("/outside", part.outside.as_ref());
            checker.bore("/bore", part.bore.as_ref(), part.outside.as_ref());
            checker.size("/active_length", part.active_length.as_ref());
            checker.size("/arm", part.arm.as_ref());
        }
        Part::SwayLink(part) => checker.range("", part.made_min.as_ref(), part.made_max.as_ref()),
        Part::Disconnect(part) => checker.own_nut(part.thread.as_ref(), part.nut_thread.as_ref()),
        Part::Fastener(part) => {
            checker.size("/length", part.length.as_ref());
            checker.own_nut(part.thread.as_ref(), part.nut_thread.as_ref());
        }
        Part::Kit(kit) => checker.kit(kit),
    }
    checker.faults
}

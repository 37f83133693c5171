//! Parts as rows of a table: whatever part there is goes into its row and comes back the same.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::fastener::Thread;
use derecho_core::fastener::stack::NutKind;
use derecho_core::fastener::strength::{Grade, ThreadTreatment};
use derecho_core::measure::{TapeEntry, TorqueEntry, Unit};
use derecho_core::parts::table::{COLUMNS, from_row, to_row};
use derecho_core::parts::{
    Attachment, BarPart, BracePart, BracketEnd, BracketId, BracketPart, DisconnectPart, DragLinkId,
    DragLinkPart, FastenerPart, Hole, HoleId, JointPart, KitFastener, KitLine, KitPart, Part, ShimPart,
    SwayBarPart, SwayLinkPart,
};
use derecho_core::pose::joint::JointKind;
use proptest::prelude::*;

/// A length as a person types it, in either unit.
fn typed() -> impl Strategy<Value = TapeEntry> {
    prop_oneof![
        (0_u32..40, 1_u32..16).prop_map(|(whole, part)| {
            TapeEntry::parse(&format!("{whole} {part}/16"), Unit::Inches).unwrap()
        }),
        (1_u32..9000).prop_map(|tenths| {
            TapeEntry::parse(&format!("{}.{}", tenths / 10, tenths % 10), Unit::Millimetres).unwrap()
        }),
        (1_u32..40).prop_map(|feet| TapeEntry::parse(&format!("{feet} in"), Unit::Millimetres).unwrap()),
    ]
}

fn maybe() -> impl Strategy<Value = Option<TapeEntry>> {
    prop::option::of(typed())
}

/// A name as somebody writes it, with what a table could trip over.
fn name() -> impl Strategy<Value = String> {
    "[a-z][a-z0-9 ,\"'/();-]{0,18}[a-z0-9)]"
}

fn thread() -> impl Strategy<Value = Option<Thread>> {
    prop::option::of(
        prop::sample::select(vec!["1-1/4-12", "3/4-16", "M24x2", "1/2-20"])
            .prop_map(|text| Thread::parse(text).unwrap()),
    )
}

fn joint() -> impl Strategy<Value = JointKind> {
    prop::sample::select(vec![
        JointKind::Rubber,
        JointKind::Polyurethane,
        JointKind::Spherical,
        JointKind::SphericalHighMisalignment,
    ])
}

fn hole() -> impl Strategy<Value = Hole> {
    (name(), typed(), maybe(), maybe()).prop_map(|(name, up, outward, forward)| Hole {
        id: HoleId::default(),
        name,
        up,
        outward,
        forward,
    })
}

fn bracket() -> impl Strategy<Value = Part> {
    (name(), prop::collection::vec(hole(), 0..5), maybe(), name(), any::<(bool, bool)>()).prop_map(
        |(name, holes, attachment_spacing, comes_off_first, (frame, weld))| {
            Part::Bracket(BracketPart {
                id: BracketId::default(),
                name,
                end: if frame { BracketEnd::Frame } else { BracketEnd::Axle },
                holes,
                attachment: if weld { Attachment::WeldOn } else { Attachment::BoltOn },
                attachment_spacing,
                comes_off_first,
                note: String::new(),
            })
        },
    )
}

fn bar() -> impl Strategy<Value = Part> {
    let adjuster = prop::option::of(prop::sample::select(vec![
        AdjusterKind::Fixed,
        AdjusterKind::OneEnd,
        AdjusterKind::Turnbuckle,
    ]));
    (name(), adjuster, (maybe(), maybe(), maybe(), maybe(), maybe()), thread(), joint(), joint(), name())
        .prop_map(|(name, adjuster, (made_min, made_max, outside, wall, bend), thread, frame, axle, note)| {
            Part::Bar(BarPart {
                name,
                adjuster,
                made_min,
                made_max,
                thread,
                frame_joint: frame,
                axle_joint: axle,
                outside,
                wall,
                bend,
                note,
                ..BarPart::default()
            })
        })
}

fn other() -> impl Strategy<Value = Part> {
    prop_oneof![
        (
            name(),
            joint(),
            prop::option::of(prop_oneof![Just(BracketEnd::Frame), Just(BracketEnd::Axle)]),
            maybe(),
            maybe(),
            thread(),
            name()
        )
            .prop_map(|(name, joint, end, width, bolt, thread, note)| {
                Part::Joint(JointPart { name, joint, end, width, bolt, thread, note })
            }),
        (name(), maybe(), maybe(), name()).prop_map(|(name, raises_axle_end, drops_pitman_end, note)| {
            Part::DragLink(DragLinkPart {
                id: DragLinkId::default(),
                name,
                raises_axle_end,
                drops_pitman_end,
                note,
            })
        }),
    ]
}

/// What a kit's fastener says, each piece as it stands in a file.
fn kit_fastener() -> impl Strategy<Value = KitFastener> {
    let place = prop::sample::select(vec!["frame/main", "axle/side", "bar/frame-eye", "own/1"]);
    let torque = prop::option::of(prop::sample::select(vec!["120 lb-ft", "45 Nm", "85 N·m"]));
    (place, thread(), 0_usize..4, torque).prop_map(|(place, thread, which, torque)| KitFastener {
        place: place.to_owned(),
        thread,
        grade: [None, Some(Grade::Grade8), Some(Grade::Class10_9), Some(Grade::Class8_8)][which],
        nut: [None, Some(NutKind::Flanged), Some(NutKind::Castle), None][which],
        treatment: [None, Some(ThreadTreatment::AntiSeize), None, Some(ThreadTreatment::Dry)][which],
        torque: torque.map(|text| TorqueEntry::parse(text).unwrap()),
    })
}

fn hardware() -> impl Strategy<Value = Part> {
    let line = ("[a-z][a-z0-9 -]{0,12}[a-z0-9]", 1_u32..9).prop_map(|(name, count)| KitLine { name, count });
    let kit =
        (name(), prop::collection::vec(line, 0..4), prop::collection::vec(kit_fastener(), 0..4), name());
    prop_oneof![
        kit.prop_map(|(name, holds, fasteners, note)| {
            let order = fasteners.iter().map(|fastener| fastener.place.clone()).collect();
            Part::Kit(KitPart { name, holds, fasteners, order, note })
        }),
        (name(), thread(), maybe(), thread()).prop_map(|(name, thread, length, nut_thread)| {
            Part::Fastener(FastenerPart { name, thread, length, nut_thread, ..FastenerPart::default() })
        }),
        (name(), maybe(), maybe(), maybe(), maybe()).prop_map(|(name, outside, bore, active_length, arm)| {
            Part::SwayBar(SwayBarPart { name, outside, bore, active_length, arm, note: String::new() })
        }),
        (name(), maybe(), maybe(), thread()).prop_map(|(name, made_min, made_max, thread)| {
            Part::SwayLink(SwayLinkPart { name, made_min, made_max, thread, note: String::new() })
        }),
        (name(), maybe(), maybe()).prop_map(|(name, below_rail, length)| {
            Part::Brace(BracePart { name, below_rail, length, note: String::new() })
        }),
        (name(), maybe()).prop_map(|(name, thickness)| Part::Shim(ShimPart {
            name,
            thickness,
            note: String::new()
        })),
        (name(), thread(), thread()).prop_map(|(name, thread, nut_thread)| {
            Part::Disconnect(DisconnectPart { name, thread, nut_thread, note: String::new() })
        }),
    ]
}

/// What a kit's cell says wrongly is named with its place.
#[test]
fn a_kit_that_cannot_be_read_says_why() {
    let reported = |fasteners: &str| {
        from_row([("kind", "kit"), ("name", "x"), ("fasteners", fasteners)].into_iter()).unwrap_err()
    };
    assert!(reported("frame/main 9/16-18").contains("no colon"));
    assert!(reported("frame/main: 9/16-18, tight").contains("\"tight\" of the fastener \"frame/main\""));
    assert!(reported("frame/main: M12x1.75, M14x1.5").contains("has thread twice"));
}

fn row(part: &Part) -> Vec<(&'static str, String)> {
    COLUMNS.into_iter().zip(to_row(part)).collect()
}

fn read(row: &[(&str, String)]) -> Result<Part, String> {
    from_row(row.iter().map(|(column, text)| (*column, text.as_str())))
}

/// Exact figures of a part, wherever they stand: a length's text may gain its unit on the way.
fn figures(part: &Part) -> serde_json::Value {
    fn strip(value: &mut serde_json::Value) {
        match value {
            serde_json::Value::Object(map) => {
                if map.contains_key("mm") {
                    map.remove("text");
                    map.remove("unit");
                }
                map.values_mut().for_each(strip);
            }
            serde_json::Value::Array(list) => list.iter_mut().for_each(strip),
            _ => {}
        }
    }
    let mut value = serde_json::to_value(part).unwrap();
    strip(&mut value);
    value
}

proptest! {
    #[test]
    fn every_part_comes_back_from_its_row(part in prop_oneof![bracket(), bar(), other(), hardware()]) {
        let out = row(&part);
        let back = read(&out).map_err(TestCaseError::fail)?;
        prop_assert_eq!(figures(&back), figures(&part));
        // Once more nothing changes at all.
        prop_assert_eq!(row(&back), out);
        prop_assert_eq!(back.kind(), part.kind());
        prop_assert_eq!(back.name(), part.name());
    }

    #[test]
    fn columns_may_stand_in_any_order(part in prop_oneof![bracket(), bar(), other(), hardware()], turn in 0_usize..23) {
        let mut out = row(&part);
        let as_it_was = read(&out);
        out.rotate_left(turn);
        prop_assert_eq!(read(&out), as_it_was);
    }

    #[test]
    fn no_row_makes_the_reader_panic(texts in prop::collection::vec("\\PC{0,16}", 23)) {
        let cells = COLUMNS.into_iter().zip(texts.iter().map(String::as_str));
        if let Err(says) = from_row(cells) {
            prop_assert!(!says.is_empty());
        }
    }
}

#[test]
fn what_is_wrong_in_a_row_is_named() {
    let reported = |cells: &[(&str, &str)]| from_row(cells.iter().copied()).unwrap_err();
    let says = reported(&[("kind", "bar"), ("name", "x"), ("colour", "red")]);
    assert!(says.contains("there is no column \"colour\""), "{says}");
    let says = reported(&[("kind", "bar"), ("name", "x"), ("made_min", "30")]);
    assert!(says.contains("made_min \"30\" has no unit"), "{says}");
    let says = reported(&[("kind", "bracket"), ("name", "x"), ("holes", "hole 1 2 in")]);
    assert!(says.contains("has no colon"), "{says}");
    let says = reported(&[("kind", "bracket"), ("name", "x"), ("holes", "hole 1: 2")]);
    assert!(says.contains("has no unit"), "{says}");
    let says = reported(&[("kind", "bracket"), ("name", "x"), ("holes", "hole 1: 2 in, upward 1 in")]);
    assert!(says.contains("neither outward nor forward"), "{says}");
    let says = reported(&[("kind", "anvil"), ("name", "x")]);
    assert!(says.contains("anvil"), "{says}");
}

#[test]
fn a_part_says_what_it_is_in_one_line() {
    let read = |cells: &[(&str, &str)]| from_row(cells.iter().copied()).unwrap();
    let bracket = read(&[
        ("kind", "bracket"),
        ("name", "riser"),
        ("end", "axle"),
        ("attachment", "weld_on"),
        ("holes", "hole 1: 2 in; hole 2: 75 mm"),
    ]);
    // 75 mm are 2.953 in, 2 15/16 to a thirty-second; 2 in are 50.8 mm.
    assert_eq!(bracket.says().inches, "axle, welded, holes 2\", 2 15/16\"");
    assert_eq!(bracket.says().millimetres, "axle, welded, holes 50.8 mm, 75 mm");
    let block = read(&[("kind", "drag_link"), ("name", "block"), ("raises_axle_end", "2 3/4 in")]);
    assert_eq!(block.says().inches, "raises the axle end 2 3/4\"");
}

//! What is assumed where nothing was typed.

use derecho_core::measure::{Length, Phrase, Unit};
use derecho_job::assembly::message::{AssumedMessage, DrawnSize, FieldOf, VehicleField};

pub(super) fn assumed(message: &AssumedMessage) -> Phrase {
    match message {
        AssumedMessage::Drawn { size, mm } => drawn(*size, Length::from_mm(*mm)),
        AssumedMessage::Field(of, field) => Phrase::plain(&field_name(*of, *field)),
        AssumedMessage::Length(length) => Phrase::of(|w| w.fine(*length)),
        AssumedMessage::WholeDegrees(degrees) => Phrase::plain(&format!("{degrees:.0}°")),
        AssumedMessage::Degrees(degrees) => Phrase::plain(&format!("{degrees:.1}°")),
        AssumedMessage::Graduation => Phrase::of(|w| match w.unit() {
            Unit::Inches => "1/16\"".to_owned(),
            Unit::Millimetres => "1 mm".to_owned(),
        }),
    }
}

/// A size of the drawing.
fn drawn(size: DrawnSize, length: Length) -> Phrase {
    let name = match size {
        DrawnSize::Bump => "bump",
        DrawnSize::Droop => "droop",
        DrawnSize::Track => "track width",
        DrawnSize::TireDiameter => "tire diameter",
        DrawnSize::TireWidth => "tire width",
        DrawnSize::FrameWidth => "frame width",
    };
    Phrase::of(|w| format!("{name} {}", w.distance(length)))
}

/// A figure that the job at the other end knows.
fn field_name(of: FieldOf, field: VehicleField) -> String {
    let name = match field {
        VehicleField::SteeringSide => "steering side",
        VehicleField::TireDiameter => "tire diameter",
        VehicleField::TireWidth => "tire width",
        VehicleField::Wheelbase => "wheelbase",
        VehicleField::CentreOfGravity => "center of gravity",
        VehicleField::CentreOfGravityGoodTo => "accuracy of that height",
        VehicleField::TireRate => "tire rate",
        VehicleField::UnsprungWeight => "unsprung weight of each axle",
        VehicleField::RoofLoad => "roof load",
        VehicleField::RoofHeight => "height of the roof load",
        VehicleField::By => "your name",
        VehicleField::AxleWeight => "weight on the axle",
        VehicleField::LeftCorner => "weight under its left wheel",
        VehicleField::RightCorner => "weight under its right wheel",
        VehicleField::SpringRate => "spring rate",
        VehicleField::SpringSpacing => "distance between the springs",
        VehicleField::Track => "track width",
        VehicleField::Bump => "up-travel",
        VehicleField::Droop => "down-travel",
        VehicleField::SwayBarRollRate => "roll rate of its sway bar, calculated there",
        VehicleField::RollCentre => "roll center, calculated there",
    };
    match of {
        FieldOf::Vehicle => name.to_owned(),
        FieldOf::OtherAxle => format!("other axle: {name}"),
        FieldOf::ThisAxle => format!("this axle: {name}"),
    }
}

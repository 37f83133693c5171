//! A bar in figures.

use derecho_core::bar::FrontView;
use derecho_core::measure::{Angle, Length};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A bar in figures, at the driven height.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BarFigures {
    /// L, eye to eye.
    pub length_mm: Length,
    /// v, + frame eye higher.
    pub rise_mm: Length,
    /// h, sideways reach.
    pub reach_mm: Length,
    /// θ in front view, + frame end higher.
    pub angle_deg: Angle,
    /// Millimetres to the left per millimetre of bump.
    pub lateral_rate: f64,
}

impl From<&FrontView> for BarFigures {
    fn from(view: &FrontView) -> Self {
        Self {
            length_mm: view.length(),
            rise_mm: view.rise(),
            reach_mm: view.reach(),
            angle_deg: view.angle(),
            lateral_rate: view.lateral_rate(),
        }
    }
}

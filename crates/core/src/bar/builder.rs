//! A bar cut and welded to length: from the gap between its eye shells to the stock to cut.

use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

use crate::measure::Length;

/// Why a bar cannot be built so.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Error)]
pub enum BuilderFault {
    /// The stock is thicker than a shell.
    #[error(
        "the bar stock is bigger than the bushing shell, so it can't be coped to it. Use smaller stock or bigger shells"
    )]
    StockTooThick,
    /// A size is nought or missing.
    #[error("gap, shells and bar stock must all be more than zero")]
    NoSize,
}

/// What to cut.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BuilderBar {
    /// Centre to centre: the gap and half of each shell.
    pub length_mm: Length,
    /// Saddle at the frame end: how much longer than the gap the stock is there.
    pub frame_saddle_mm: Length,
    /// Saddle at the axle end.
    pub axle_saddle_mm: Length,
    /// Length of stock to cut, tip to tip before coping: the gap and both saddles.
    pub cut_mm: Length,
}

/// Depth of the saddle that a round of diameter q needs on a shell of diameter D ≥ q:
/// (D − √(D² − q²))/2.
///
/// # Errors
/// Where the stock is thicker than the shell, or a size is nought.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::bar::builder::saddle;
///
/// // Stock as thick as the shell goes in by half of it.
/// let mm = Length::from_mm;
/// assert!((saddle(mm(40.0), mm(40.0)).unwrap().to_mm() - 20.0).abs() < 1e-9);
/// assert!(saddle(mm(30.0), mm(40.0)).is_err());
/// ```
pub fn saddle(shell: Length, stock: Length) -> Result<Length, BuilderFault> {
    let (d, q) = (shell.to_mm(), stock.to_mm());
    if d <= 0.0 || q <= 0.0 {
        return Err(BuilderFault::NoSize);
    }
    if q > d {
        return Err(BuilderFault::StockTooThick);
    }
    Ok(Length::from_mm((d - (d * d - q * q).sqrt()) / 2.0))
}

/// The stock for a gap between two shells.
///
/// # Errors
/// As [`saddle`].
pub fn built(
    gap: Length,
    frame_shell: Length,
    axle_shell: Length,
    stock: Length,
) -> Result<BuilderBar, BuilderFault> {
    if gap <= Length::ZERO {
        return Err(BuilderFault::NoSize);
    }
    let (frame, axle) = (saddle(frame_shell, stock)?, saddle(axle_shell, stock)?);
    Ok(BuilderBar {
        length_mm: gap + frame_shell / 2.0 + axle_shell / 2.0,
        frame_saddle_mm: frame,
        axle_saddle_mm: axle,
        cut_mm: gap + frame + axle,
    })
}

/// The edge of the cope, unrolled: places round the stock, mm along its circumference from
/// the seam, and how far the edge lies behind the tip there, mm. The seam is at a tip.
///
/// At an angle t round the stock of radius r it meets the shell of radius R at
/// R − √(R² − (r·sin t)²) from the shell's nearest line (two cylinders at right angles).
#[must_use]
pub fn cope_edge(shell: Length, stock: Length, steps: usize) -> Vec<(f64, f64)> {
    let (big, small) = (shell.to_mm() / 2.0, stock.to_mm() / 2.0);
    let depth = |t: f64| big - (big * big - (small * t.sin()).powi(2)).max(0.0).sqrt();
    let deepest = depth(std::f64::consts::FRAC_PI_2);
    (0..=steps)
        .map(|step| {
            let t = std::f64::consts::TAU * step as f64 / steps as f64;
            // The tips stand where the stock is at the shell's sides, a quarter turn on.
            (small * t, deepest - depth(t + std::f64::consts::FRAC_PI_2))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    #[test]
    fn a_stock_as_thick_as_its_shell_is_coped_by_half_of_it() {
        assert_eq!(saddle(mm(50.0), mm(50.0)).unwrap().to_mm(), 25.0);
        // 3-4-5: shell 50, stock 30: (50 − 40)/2.
        assert_eq!(saddle(mm(50.0), mm(30.0)).unwrap().to_mm(), 5.0);
        assert_eq!(saddle(mm(30.0), mm(50.0)), Err(BuilderFault::StockTooThick));
    }

    #[test]
    fn gap_to_cut_length_by_hand() {
        let bar = built(mm(700.0), mm(50.0), mm(50.0), mm(30.0)).unwrap();
        assert_eq!((bar.length_mm.to_mm(), bar.cut_mm.to_mm()), (750.0, 710.0));
        assert_eq!(built(mm(0.0), mm(50.0), mm(50.0), mm(30.0)), Err(BuilderFault::NoSize));
    }

    proptest! {
        #[test]
        fn every_point_of_the_cope_lies_on_the_shell(shell in 30.0..90.0_f64, share in 0.3..1.0_f64) {
            let stock = shell * share;
            let deepest = saddle(mm(shell), mm(stock)).unwrap().to_mm();
            for (round, behind) in cope_edge(mm(shell), mm(stock), 36) {
                prop_assert!((-1e-9..=deepest + 1e-9).contains(&behind));
                // The edge's distance from the shell's axis, in the plane across the shell.
                let t = round / (stock / 2.0) + std::f64::consts::FRAC_PI_2;
                let across = stock / 2.0 * t.sin();
                let from_axis = shell / 2.0 - (deepest - behind);
                prop_assert!((across.hypot(from_axis) - shell / 2.0).abs() < 1e-9);
            }
        }
    }
}

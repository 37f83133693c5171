//! Links built from rod: what to cut between two threaded joints, one right hand and one left.

use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

use crate::measure::Length;

/// Joints screwed into both ends of a tapped rod, each with a jam nut.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RodLink {
    /// From a joint's centre to the tip of its thread.
    pub eye_to_tip: Length,
    /// Length of its thread.
    pub shank: Length,
    /// Thickness of a jam nut.
    pub jam_nut: Length,
    /// Thread that has to be in the rod.
    pub least_in: Length,
}

/// What to cut.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RodCut {
    /// Length of rod, face to face.
    pub rod_mm: Length,
    /// Thread in the rod at each end as built, midway of what can be turned.
    pub in_mm: Length,
    /// How much longer the link can still be turned.
    pub longer_mm: Length,
    /// And shorter.
    pub shorter_mm: Length,
    /// Each end is tapped at least so deep.
    pub tap_mm: Length,
}

/// Why no link can be built so.
#[derive(Clone, Copy, Debug, PartialEq, Error)]
pub enum RodFault {
    /// The thread is too short for what has to be in and the nut.
    #[error("the joint's thread is too short for the jam nut plus the thread needed in the rod")]
    ThreadTooShort,
    /// There is no room for two tapped ends.
    #[error("no room for a rod between the two joints")]
    NoRod,
}

impl RodLink {
    /// Cuts the rod for a link, eye to eye: rod = l − 2·(eye to tip − thread in), the thread in
    /// midway between the least and all of it but the jam nut, so that it turns both ways.
    ///
    /// # Errors
    /// Where the parts do not make such a link.
    pub fn cut(&self, link: Length) -> Result<RodCut, RodFault> {
        let most = self.shank - self.jam_nut;
        if most < self.least_in {
            return Err(RodFault::ThreadTooShort);
        }
        let inside = (self.least_in + most) / 2.0;
        let rod = link - (self.eye_to_tip - inside) * 2.0;
        if rod < most * 2.0 {
            return Err(RodFault::NoRod);
        }
        Ok(RodCut {
            rod_mm: rod,
            in_mm: inside,
            longer_mm: (inside - self.least_in) * 2.0,
            shorter_mm: (most - inside) * 2.0,
            tap_mm: most,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    const JOINT: RodLink = RodLink {
        eye_to_tip: Length::from_mm(70.0),
        shank: Length::from_mm(45.0),
        jam_nut: Length::from_mm(7.0),
        least_in: Length::from_mm(18.0),
    };

    #[test]
    fn a_link_of_300_by_hand() {
        // In: between 18 and 38, so 28. Rod: 300 − 2·(70 − 28) = 216; 20 either way.
        let cut = JOINT.cut(mm(300.0)).unwrap();
        assert_eq!((cut.rod_mm, cut.in_mm, cut.tap_mm), (mm(216.0), mm(28.0), mm(38.0)));
        assert_eq!((cut.longer_mm, cut.shorter_mm), (mm(20.0), mm(20.0)));
    }

    #[test]
    fn parts_that_make_no_link_are_reported() {
        assert_eq!(JOINT.cut(mm(150.0)), Err(RodFault::NoRod));
        let short = RodLink { shank: mm(24.0), ..JOINT };
        assert_eq!(short.cut(mm(300.0)), Err(RodFault::ThreadTooShort));
    }

    proptest! {
        #[test]
        fn turned_to_its_ends_the_link_is_as_long_as_reported(link in 180.0..600.0_f64) {
            let cut = JOINT.cut(mm(link)).unwrap();
            let eye_to_eye = |inside: Length| cut.rod_mm + (JOINT.eye_to_tip - inside) * 2.0;
            prop_assert!((eye_to_eye(cut.in_mm).to_mm() - link).abs() < 1e-9);
            prop_assert!(((eye_to_eye(JOINT.least_in) - cut.longer_mm).to_mm() - link).abs() < 1e-9);
            prop_assert!(((eye_to_eye(cut.tap_mm) + cut.shorter_mm).to_mm() - link).abs() < 1e-9);
        }
    }
}

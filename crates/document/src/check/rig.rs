//! Who holds what.

use super::checker::{Checker, LONGEST_LIST, LONGEST_NAME};
use crate::Rig;
use crate::heights::RIDE_HEIGHT;

impl Checker {
    pub(super) fn rig(&mut self, rig: &Rig) {
        self.text("/rig/vehicle", &rig.vehicle, LONGEST_NAME);
        self.list("/rig/heights", rig.heights.len(), LONGEST_LIST);
        for (pointer, entry) in
            [("/rig/bump", &rig.bump), ("/rig/droop", &rig.droop), ("/rig/usual_spread", &rig.usual_spread)]
        {
            self.distance(pointer, entry.as_ref());
        }
        let straps = rig.straps.clone().unwrap_or_default();
        for (pointer, entry) in [
            ("/rig/track", &rig.track),
            ("/rig/tyre_diameter", &rig.tyre_diameter),
            ("/rig/tyre_width", &rig.tyre_width),
            ("/rig/frame_width", &rig.frame_width),
            ("/rig/hub_faces", &rig.hub_faces),
            ("/rig/straps/length", &straps.length),
            ("/rig/straps/at_droop", &straps.at_droop),
            ("/rig/straps/at_driven", &straps.at_driven),
            ("/rig/tolerance", &rig.tolerance),
            ("/rig/bump_half_spacing", &rig.bump_half_spacing),
            ("/rig/droop_half_spacing", &rig.droop_half_spacing),
            ("/rig/axle_height", &rig.axle_height),
        ] {
            self.size(pointer, entry.as_ref());
        }
        self.ids("/rig/heights", rig.heights.iter().map(|height| height.id.as_str()));
        for (index, height) in rig.heights.iter().enumerate() {
            let pointer = format!("/rig/heights/{index}/name");
            self.text(&pointer, &height.name, LONGEST_NAME);
            if height.name.trim().is_empty() {
                self.fault(&pointer, "name_missing", "A height needs a name, such as raised.");
            } else if height.name.trim().eq_ignore_ascii_case(RIDE_HEIGHT)
                && height.offset.number().nanometres() != 0
            {
                self.fault(
                    &pointer,
                    "name_taken",
                    "Ride height itself goes by this name: it is 0 above itself. Give this height another name.",
                );
            }
        }
        self.height("/rig/driven_height", &rig.driven_height, rig);
    }
}

//! What can hurt at a fire, said where it applies. Planning figures never stand above local rules and the maker's manual.
//!
//! Source: bake model, section 15; craft notes, section 9.

use super::oven::{Fuel, Oven, OvenKind};

/// One caution.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Caution {
    /// Life is at stake: it is acknowledged once per run.
    pub grave: bool,
    pub head: &'static str,
    pub say: &'static str,
}

const MONOXIDE: Caution = Caution {
    grave: true,
    head: "Carbon monoxide",
    say: "Never fire wood or portable gas indoors, in a garage, a tent or under a closed awning. A fixed oven needs an approved flue, fresh air and a working alarm. Headache or nausea: out into the air, call for help.",
};
const GAS: Caution = Caution {
    grave: true,
    head: "Gas",
    say: "Check hose and fittings, light it with the mouth open, stand aside. A smell of gas: close the valve, no flame, no switch.",
};
const EMBERS: Caution = Caution {
    grave: true,
    head: "Fire and embers",
    say: "Nothing that burns within reach, mind the wind, an extinguisher at hand. Ash into a lidded metal can until it is cold, for days.",
};
const BURNS: Caution = Caution {
    grave: false,
    head: "Burns",
    say: "Floor, steel and pans stay hot for an hour and more. Long dry gloves; children and pets away.",
};
const SHOCK: Caution = Caution {
    grave: false,
    head: "Stone cracks",
    say: "Heat it from cold, slowly when new or wet. No water and nothing frozen on a hot stone.",
};
const OIL: Caution = Caution {
    grave: false,
    head: "Hot oil",
    say: "Shallow oil, a level pan, a lid at hand. Smoke means too hot; never water on burning oil.",
};
const GRILL: Caution = Caution {
    grave: false,
    head: "Grill",
    say: "Keep clear of the element and stay with it. Baking paper scorches above 220 °C.",
};
const STEEL: Caution = Caution {
    grave: false,
    head: "Weight",
    say: "Steel is heavy: check what the rack carries.",
};

/// What decides in the end.
pub const MANUAL: &str = "Your oven's manual and local fire, gas and food codes decide.";

/// The cautions for an oven; `pan` where the piece lies in an oiled one, `grill` where it glows.
pub fn cautions(oven: &Oven, pan: bool, grill: bool) -> Vec<Caution> {
    let mut out = Vec::new();
    match oven.fuel {
        Fuel::Wood => out.extend([MONOXIDE, EMBERS]),
        Fuel::Gas => out.extend([MONOXIDE, GAS]),
        Fuel::Electric => {}
    }
    out.push(BURNS);
    if grill {
        out.push(GRILL);
    }
    if pan {
        out.push(OIL);
    }
    if oven.floor.is_metal() && oven.kind == OvenKind::Home {
        out.push(STEEL);
    } else if !oven.floor.is_metal() {
        out.push(SHOCK);
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fire::oven;

    #[test]
    fn fire_and_gas_are_grave_and_current_is_not() {
        for o in oven::all() {
            let grave = cautions(o, false, false).iter().any(|c| c.grave);
            assert_eq!(grave, o.fuel != Fuel::Electric, "{}", o.key);
        }
        let home = oven::all().iter().find(|o| o.key == "home_steel").unwrap();
        assert!(cautions(home, true, true).len() > cautions(home, false, false).len());
    }
}

//! What floors and pans are made of, and how hot the skin of a dough gets on them.
//!
//! Source: bake model, section 4 (textbook figures; stones vary by ±30 %).

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a floor or a pan is made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Material {
    /// Soft porous clay: it gives its heat slowly.
    Biscuit,
    /// The usual stone of home and portable ovens.
    Cordierite,
    /// Dense brick.
    Firebrick,
    /// A steel plate.
    CarbonSteel,
    /// A plate of stainless steel.
    Stainless,
    /// A plate of cast iron.
    CastIron,
    /// A plate of aluminium.
    Aluminium,
}

/// Its figures: W/mK, kg/m³, J/kgK, emissivity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Body {
    /// Conductivity, W/(m·K).
    pub k: f64,
    /// Density, kg/m³.
    pub rho: f64,
    /// Specific heat, J/(kg·K).
    pub cp: f64,
    /// Emissivity of its face, 0 to 1.
    pub eps: f64,
}

/// The effusivity of a raw dough at its face, sqrt(0.42 · 850 · 2650), W s½/m²K.
const DOUGH_EFFUSIVITY: f64 = 973.0;

impl Material {
    /// How it carries and holds heat.
    pub fn body(self) -> Body {
        let (k, rho, cp, eps) = match self {
            Material::Cordierite => (1.30, 2000.0, 950.0, 0.90),
            Material::Biscuit => (0.55, 1700.0, 900.0, 0.90),
            Material::Firebrick => (0.95, 2050.0, 960.0, 0.90),
            Material::CarbonSteel => (45.0, 7850.0, 520.0, 0.80),
            Material::Stainless => (18.0, 7900.0, 520.0, 0.35),
            Material::CastIron => (48.0, 7200.0, 520.0, 0.85),
            Material::Aluminium => (200.0, 2700.0, 950.0, 0.20),
        };
        Body { k, rho, cp, eps }
    }

    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Material::Cordierite => fact!("floor-cordierite"),
            Material::Biscuit => fact!("floor-terracotta"),
            Material::Firebrick => fact!("floor-firebrick"),
            Material::CarbonSteel => fact!("floor-steel"),
            Material::Stainless => fact!("floor-stainless"),
            Material::CastIron => fact!("floor-cast-iron"),
            Material::Aluminium => fact!("floor-aluminium"),
        }
    }
    /// Bare metal misleads an infrared thermometer.
    pub fn is_metal(self) -> bool {
        self.body().k > 10.0
    }

    /// How readily it gives heat: sqrt(k ρ c), W s½/m²K.
    pub fn effusivity(self) -> f64 {
        let b = self.body();
        (b.k * b.rho * b.cp).sqrt()
    }

    /// The temperature two thick bodies take at once where they touch, °C: what a dough's skin would meet on a perfect
    /// contact. An explanatory number; the real skin stays 20 to 30 K below, since contact is imperfect and water boils.
    pub fn contact_c(self, floor_c: f64, dough_c: f64) -> f64 {
        let b = self.effusivity();
        (floor_c * b + dough_c * DOUGH_EFFUSIVITY) / (b + DOUGH_EFFUSIVITY)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_same_skin_from_a_floor_100_k_cooler() {
        let brick = Material::Firebrick.contact_c(330.0, 22.0);
        let steel = Material::Stainless.contact_c(230.0, 22.0);
        assert!((brick - 202.0).abs() < 1.0, "{brick}");
        assert!((steel - brick).abs() < 10.0, "{steel}");
    }
}

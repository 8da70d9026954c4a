"""Formulas and moulds that the golden tables share."""

RAMEKIN = {"shape": "round", "top_diameter_mm": 83, "bottom_diameter_mm": 78, "depth_mm": 44,
           "wall_mm": 4.5, "material": "porcelain", "fill_mm": 38}  # fmt: skip
TIN = {"shape": "round", "top_diameter_mm": 230, "bottom_diameter_mm": 220, "depth_mm": 40,
       "wall_mm": 0.8, "material": "steel", "fill_mm": 30}  # fmt: skip
SPRING = {"shape": "round", "top_diameter_mm": 230, "bottom_diameter_mm": 230, "depth_mm": 70,
          "wall_mm": 0.8, "material": "steel", "fill_mm": 55}  # fmt: skip
HAY = ["1 l whole milk", "5 eggs", "3 yolks", "180 g sugar"]
BRULEE = ["800 g cream 35%", "200 g whole milk", "10 yolks", "150 g sugar"]
CHEESE = ["1 kg cream cheese", "270 g sugar", "5 eggs", "200 g sour cream"]
PASTRY = ["1 l whole milk", "9 yolks", "200 g sugar", "80 g corn starch"]
Row = dict[str, object]

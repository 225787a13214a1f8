CREATE FUNCTION public.revisions_never_change() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
        BEGIN RAISE EXCEPTION 'a revision never changes'; END $$;
CREATE TABLE public.alembic_version (
    version_num character varying(32) NOT NULL
);
CREATE TABLE public.cup_weighings (
    id integer NOT NULL,
    kitchen_id integer NOT NULL,
    body jsonb NOT NULL,
    weighed_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE SEQUENCE public.cup_weighings_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.cup_weighings_id_seq OWNED BY public.cup_weighings.id;
CREATE TABLE public.formulas (
    id integer NOT NULL,
    kitchen_id integer NOT NULL,
    latest_number integer NOT NULL,
    name text NOT NULL,
    styles text[] NOT NULL,
    liquid_percent double precision,
    unsaved boolean NOT NULL,
    desk_formula jsonb NOT NULL,
    desk_count jsonb NOT NULL,
    desk_base integer NOT NULL,
    version integer NOT NULL,
    archived_at timestamp with time zone,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    true_water_percent double precision,
    desk_schema integer DEFAULT 2 NOT NULL
);
CREATE SEQUENCE public.formulas_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.formulas_id_seq OWNED BY public.formulas.id;
CREATE TABLE public.kitchens (
    id integer NOT NULL,
    name text NOT NULL,
    settings jsonb NOT NULL,
    version integer NOT NULL
);
CREATE SEQUENCE public.kitchens_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.kitchens_id_seq OWNED BY public.kitchens.id;
CREATE TABLE public.own_ingredients (
    kitchen_id integer NOT NULL,
    name text NOT NULL,
    role text NOT NULL,
    body jsonb DEFAULT '{}'::jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.pans (
    id integer NOT NULL,
    kitchen_id integer NOT NULL,
    body jsonb NOT NULL,
    version integer NOT NULL,
    archived_at timestamp with time zone
);
CREATE SEQUENCE public.pans_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.pans_id_seq OWNED BY public.pans.id;
CREATE TABLE public.revisions (
    formula_id integer NOT NULL,
    number integer NOT NULL,
    kitchen_id integer NOT NULL,
    schema_number integer NOT NULL,
    body jsonb NOT NULL,
    note text NOT NULL,
    saved_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.takings (
    id integer NOT NULL,
    kitchen_id integer NOT NULL,
    name text NOT NULL,
    text text NOT NULL,
    settled jsonb NOT NULL,
    system text,
    formula_id integer,
    version integer NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE SEQUENCE public.takings_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.takings_id_seq OWNED BY public.takings.id;
ALTER TABLE ONLY public.cup_weighings ALTER COLUMN id SET DEFAULT nextval('public.cup_weighings_id_seq'::regclass);
ALTER TABLE ONLY public.formulas ALTER COLUMN id SET DEFAULT nextval('public.formulas_id_seq'::regclass);
ALTER TABLE ONLY public.kitchens ALTER COLUMN id SET DEFAULT nextval('public.kitchens_id_seq'::regclass);
ALTER TABLE ONLY public.pans ALTER COLUMN id SET DEFAULT nextval('public.pans_id_seq'::regclass);
ALTER TABLE ONLY public.takings ALTER COLUMN id SET DEFAULT nextval('public.takings_id_seq'::regclass);
INSERT INTO public.alembic_version VALUES ('0005');
INSERT INTO public.cup_weighings VALUES (1, 1, '{"way": "scooped", "note": "", "count": 1.0, "measure": "cup", "weight_g": 143.0, "ingredient": "Bread flour"}', '2026-11-27 14:42:25.016367+00');
INSERT INTO public.formulas VALUES (1, 1, 1, 'Leek and thyme focaccia', '{wet,"overnight poolish"}', 78, false, '{"name": "Leek and thyme focaccia", "note": "", "bands": {}, "steps": [], "usual": {"pan": {"name": "Half sheet", "shape": "sheet", "brim_ml": null, "depth_cm": 2.5, "width_cm": 33.0, "length_cm": 46.0}, "fill": 0.9, "pans": 1, "gap_cm": null, "piece_g": 1370.0, "shaping": {"kind": "ball", "length_cm": null, "overlap_cm": 2.0, "diameter_cm": null, "thickness_cm": null}, "bake_min": null, "bake_loss": null, "fill_kind": "focaccia", "bench_loss": 0.03, "pieces_per_pan": 1}, "beside": [{"kind": "pan_oil", "name": "For the pan", "lines": [{"band": null, "name": "Olive oil", "note": "", "role": "fat", "parts": 1, "percent": null, "written": "", "weight_g": 30.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}], "rested": [], "stages": [{"key": "", "kind": "poolish", "name": "Poolish, overnight", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": null, "written": "", "weight_g": 200.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 200.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 0.4, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "dough", "name": "Dough", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": null, "written": "", "weight_g": 800.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 580.0, "held_back": 0.1, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 4.0, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "late", "name": "After 20 min", "feeds": [], "lines": [{"band": null, "name": "Fine salt", "note": "", "role": "salt", "parts": 1, "percent": null, "written": "", "weight_g": 21.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Olive oil", "note": "", "role": "fat", "parts": 2, "percent": null, "written": "", "weight_g": 50.0, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "inclusions", "name": "Folded in", "feeds": [], "lines": [{"band": null, "name": "Leek", "note": "softened and cold", "role": "inclusion", "parts": 1, "percent": null, "written": "", "weight_g": 160.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Thyme", "note": "", "role": "flavour", "parts": 1, "percent": null, "written": "", "weight_g": 4.0, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}], "styles": ["wet", "overnight poolish"], "flour_g": 1000.0}', '{"pins": {"dough_g": null, "flour_g": 1000.0, "divide_g": null, "bench_loss": null}, "rules": "EU", "limits": [], "targets": [{"pan": {"name": "Half sheet", "shape": "sheet", "brim_ml": null, "depth_cm": 2.5, "width_cm": 33.0, "length_cm": 46.0}, "name": "half sheet", "pins": {"fill": 0.9, "pans": 1, "pieces": null, "take_g": null, "baked_g": null, "piece_g": null, "bake_loss": null, "pieces_per_pan": null}, "label_g": null, "shaping": null, "fill_kind": null, "leave_gaps": false}, {"pan": {"name": "Iron pan", "shape": "iron", "brim_ml": null, "depth_cm": 5.0, "diameter_cm": 30.0, "base_diameter_cm": 26.0}, "name": "what is left", "pins": {"fill": null, "pans": null, "pieces": 1, "take_g": null, "baked_g": null, "piece_g": null, "bake_loss": null, "pieces_per_pan": 1}, "label_g": null, "shaping": null, "fill_kind": null, "leave_gaps": false}], "leave_remainder": false}', 1, 2, NULL, '2026-11-27 14:42:25.036801+00', 78.02619999999999, 5);
INSERT INTO public.formulas VALUES (2, 1, 2, 'Caraway knots', '{stiff,"soda bath"}', 52, false, '{"name": "Caraway knots", "note": "", "bands": {}, "steps": [], "usual": {"pan": null, "fill": null, "pans": 1, "gap_cm": null, "piece_g": 85.0, "shaping": {"kind": "knot", "length_cm": null, "overlap_cm": 2.0, "diameter_cm": null, "thickness_cm": 1.6}, "bake_min": null, "bake_loss": null, "fill_kind": "knots_apart", "bench_loss": 0.02, "pieces_per_pan": 12}, "beside": [{"kind": "bath", "name": "Soda bath", "lines": [{"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 2500.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Baking soda", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 125.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}, {"kind": "topping", "name": "Topping", "lines": [{"band": null, "name": "Coarse salt", "note": "", "role": "salt", "parts": 1, "percent": null, "written": "", "weight_g": 12.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}], "rested": [], "stages": [{"key": "", "kind": "biga", "name": "Biga, overnight", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": 20.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "cool", "role": "liquid", "parts": 1, "percent": 11.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": 0.05, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "dough", "name": "Dough", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": 75.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Rye flour", "note": "", "role": "flour", "parts": 1, "percent": 5.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": 41.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Butter", "note": "soft", "role": "fat", "parts": 1, "percent": 5.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Malt syrup", "note": "", "role": "sugar", "parts": 1, "percent": 2.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Fine salt", "note": "", "role": "salt", "parts": 1, "percent": 1.9, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": 0.75, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Caraway seed", "note": "", "role": "flavour", "parts": 1, "percent": 1.2, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}], "styles": ["stiff", "soda bath"], "flour_g": 800.0}', '{"pins": {"dough_g": null, "flour_g": null, "divide_g": 1290.0, "bench_loss": null}, "rules": "EU", "limits": [], "targets": [{"pan": null, "name": "", "pins": {"fill": null, "pans": null, "pieces": null, "take_g": null, "baked_g": null, "piece_g": 75.0, "bake_loss": null, "pieces_per_pan": null}, "label_g": null, "shaping": null, "fill_kind": null, "leave_gaps": false}], "leave_remainder": false}', 2, 3, NULL, '2026-11-27 14:42:25.050099+00', 53.4366, 5);
INSERT INTO public.kitchens VALUES (1, 'Weir House kitchen', '{"kit": {"sheet": null, "bowl_g": null, "pot_cm": null, "pot_ml": null, "sheets": 2, "bowl_ml": null, "griddle": null, "shelves": 2, "spread_g": 2.0, "oven_width_cm": null, "fridge_shelves": 1, "oven_length_cm": null, "fridge_width_cm": null, "fridge_length_cm": null}, "paper": "A4", "scale": {"step": "1", "unit": "g", "fine_step": null, "fine_under": "25"}, "habits": {"egg": null, "malt": null, "salt": null, "yeast": null, "squash": null, "system": null, "cup_way": null, "dry_yeast": null}, "columns": {}, "practice": {"yeast": "3 : 1.2 : 1", "starter": "joined"}, "length_unit": "cm"}', 1);
INSERT INTO public.own_ingredients VALUES (1, 'Canal honey', 'sugar', '{"also": [], "bran": false, "source": "", "also_de": [], "measures": [], "allergens": [], "hydration": null, "composition": null, "may_contain": [], "read_packet": false}', 1);
INSERT INTO public.pans VALUES (1, 1, '{"pan": {"name": "Two-pound tin", "shape": "loaf", "brim_ml": 2510.0, "depth_cm": 11.0, "width_cm": 11.5, "corner_cm": null, "length_cm": 22.0, "base_width_cm": 10.5, "base_length_cm": 20.5}, "note": "The tall one from the market", "owned": 2, "colour": "", "sticks": false, "material": "steel_light"}', 1, NULL);
INSERT INTO public.revisions VALUES (1, 1, 1, 5, '{"name": "Leek and thyme focaccia", "note": "", "bands": {}, "steps": [], "usual": {"pan": {"name": "Half sheet", "shape": "sheet", "brim_ml": null, "depth_cm": 2.5, "width_cm": 33.0, "length_cm": 46.0}, "fill": 0.9, "pans": 1, "gap_cm": null, "piece_g": 1370.0, "shaping": {"kind": "ball", "length_cm": null, "overlap_cm": 2.0, "diameter_cm": null, "thickness_cm": null}, "bake_min": null, "bake_loss": null, "fill_kind": "focaccia", "bench_loss": 0.03, "pieces_per_pan": 1}, "beside": [{"kind": "pan_oil", "name": "For the pan", "lines": [{"band": null, "name": "Olive oil", "note": "", "role": "fat", "parts": 1, "percent": null, "written": "", "weight_g": 30.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}], "rested": [], "stages": [{"key": "", "kind": "poolish", "name": "Poolish, overnight", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": null, "written": "", "weight_g": 200.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 200.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 0.4, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "dough", "name": "Dough", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": null, "written": "", "weight_g": 800.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 580.0, "held_back": 0.1, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 4.0, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "late", "name": "After 20 min", "feeds": [], "lines": [{"band": null, "name": "Fine salt", "note": "", "role": "salt", "parts": 1, "percent": null, "written": "", "weight_g": 21.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Olive oil", "note": "", "role": "fat", "parts": 2, "percent": null, "written": "", "weight_g": 50.0, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "inclusions", "name": "Folded in", "feeds": [], "lines": [{"band": null, "name": "Leek", "note": "softened and cold", "role": "inclusion", "parts": 1, "percent": null, "written": "", "weight_g": 160.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Thyme", "note": "", "role": "flavour", "parts": 1, "percent": null, "written": "", "weight_g": 4.0, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}], "styles": ["wet", "overnight poolish"], "flour_g": 1000.0}', 'As first written', '2026-11-27 14:42:25.016367+00');
INSERT INTO public.revisions VALUES (2, 1, 1, 5, '{"name": "Caraway knots", "note": "", "bands": {}, "steps": [], "usual": {"pan": null, "fill": null, "pans": 1, "gap_cm": null, "piece_g": 85.0, "shaping": {"kind": "knot", "length_cm": null, "overlap_cm": 2.0, "diameter_cm": null, "thickness_cm": 1.6}, "bake_min": null, "bake_loss": null, "fill_kind": "knots_apart", "bench_loss": 0.02, "pieces_per_pan": 12}, "beside": [{"kind": "bath", "name": "Soda bath", "lines": [{"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 2500.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Baking soda", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 125.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}, {"kind": "topping", "name": "Topping", "lines": [{"band": null, "name": "Coarse salt", "note": "", "role": "salt", "parts": 1, "percent": null, "written": "", "weight_g": 12.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}], "rested": [], "stages": [{"key": "", "kind": "biga", "name": "Biga, overnight", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": 20.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "cool", "role": "liquid", "parts": 1, "percent": 11.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": 0.05, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "dough", "name": "Dough", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": 75.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Rye flour", "note": "", "role": "flour", "parts": 1, "percent": 5.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": 41.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Butter", "note": "soft", "role": "fat", "parts": 1, "percent": 5.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Malt syrup", "note": "", "role": "sugar", "parts": 1, "percent": 2.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Fine salt", "note": "", "role": "salt", "parts": 1, "percent": 1.9, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": 0.75, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Caraway seed", "note": "", "role": "flavour", "parts": 1, "percent": 1.2, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}], "styles": ["stiff", "soda bath"], "flour_g": 800.0}', 'As first written', '2026-11-27 14:42:25.016367+00');
INSERT INTO public.revisions VALUES (2, 2, 1, 5, '{"name": "Caraway knots", "note": "", "bands": {}, "steps": [], "usual": {"pan": null, "fill": null, "pans": 1, "gap_cm": null, "piece_g": 85.0, "shaping": {"kind": "knot", "length_cm": null, "overlap_cm": 2.0, "diameter_cm": null, "thickness_cm": 1.6}, "bake_min": null, "bake_loss": null, "fill_kind": "knots_apart", "bench_loss": 0.02, "pieces_per_pan": 12}, "beside": [{"kind": "bath", "name": "Soda bath", "lines": [{"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": null, "written": "", "weight_g": 2500.0, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Baking soda", "note": "", "role": "leaven", "parts": 1, "percent": null, "written": "", "weight_g": 125.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}, {"kind": "topping", "name": "Topping", "lines": [{"band": null, "name": "Coarse salt", "note": "", "role": "salt", "parts": 1, "percent": null, "written": "", "weight_g": 12.0, "held_back": 0.0, "hydration": null}], "serves": null, "border_cm": 1.0}], "rested": [], "stages": [{"key": "", "kind": "biga", "name": "Biga, overnight", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": 20.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "cool", "role": "liquid", "parts": 1, "percent": 11.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": 0.05, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}, {"key": "", "kind": "dough", "name": "Dough", "feeds": [], "lines": [{"band": null, "name": "Bread flour", "note": "", "role": "flour", "parts": 1, "percent": 75.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Rye flour", "note": "", "role": "flour", "parts": 1, "percent": 5.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Water", "note": "", "role": "liquid", "parts": 1, "percent": 41.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Butter", "note": "soft", "role": "fat", "parts": 1, "percent": 5.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Malt syrup", "note": "", "role": "sugar", "parts": 1, "percent": 2.0, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Fine salt", "note": "", "role": "salt", "parts": 1, "percent": 1.9, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Instant yeast", "note": "", "role": "leaven", "parts": 1, "percent": 0.75, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}, {"band": null, "name": "Caraway seed", "note": "", "role": "flavour", "parts": 1, "percent": 1.2, "written": "", "weight_g": null, "held_back": 0.0, "hydration": null}], "boiled_off": 0.0}], "styles": ["stiff", "soda bath"], "flour_g": 800.0}', 'Again', '2026-11-27 14:42:25.016367+00');
INSERT INTO public.takings VALUES (1, 1, 'Squash rolls, the old card', 'Squash rolls, the old card (makes 16)
4 cups bread flour
1 cup mashed squash
3/4 cup warm milk
1 egg
1/4 cup soft butter, plus more for the pan
2 heaped Tbsp sugar
2 tsp salt
1 packet dry yeast
For the wash:
1 yolk, beaten with 1 tbsp milk
Method
1. Wake the yeast in the warm milk, 38 to 43 °C, 5–10 min.
2. Mix with the rest and knead 10 min. Rise until doubled, 1½ h.
3. Divide into 16, round up, rise 45 min in the pan.
4. Wash the tops. Bake 190 °C / 375 °F, 18–20 min.
', '[{"nth": 0, "way": null, "kind": null, "name": null, "part": 0, "role": null, "where": null, "written": "1 egg", "weight_g": 52.0, "alternative": null}]', NULL, NULL, 1, '2026-11-27 14:42:25.445114+00');
ALTER TABLE ONLY public.alembic_version
    ADD CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num);
ALTER TABLE ONLY public.cup_weighings
    ADD CONSTRAINT pk_cup_weighings PRIMARY KEY (id);
ALTER TABLE ONLY public.formulas
    ADD CONSTRAINT pk_formulas PRIMARY KEY (id);
ALTER TABLE ONLY public.kitchens
    ADD CONSTRAINT pk_kitchens PRIMARY KEY (id);
ALTER TABLE ONLY public.own_ingredients
    ADD CONSTRAINT pk_own_ingredients PRIMARY KEY (kitchen_id, name);
ALTER TABLE ONLY public.pans
    ADD CONSTRAINT pk_pans PRIMARY KEY (id);
ALTER TABLE ONLY public.revisions
    ADD CONSTRAINT pk_revisions PRIMARY KEY (formula_id, number);
ALTER TABLE ONLY public.takings
    ADD CONSTRAINT pk_takings PRIMARY KEY (id);
CREATE INDEX ix_cup_weighings_kitchen_id ON public.cup_weighings USING btree (kitchen_id);
CREATE INDEX ix_formulas_kitchen_id ON public.formulas USING btree (kitchen_id);
CREATE INDEX ix_pans_kitchen_id ON public.pans USING btree (kitchen_id);
CREATE INDEX ix_takings_kitchen_id ON public.takings USING btree (kitchen_id);
CREATE TRIGGER revisions_never_change BEFORE UPDATE ON public.revisions FOR EACH ROW EXECUTE FUNCTION public.revisions_never_change();
ALTER TABLE ONLY public.cup_weighings
    ADD CONSTRAINT fk_cup_weighings_kitchen_id FOREIGN KEY (kitchen_id) REFERENCES public.kitchens(id);
ALTER TABLE ONLY public.formulas
    ADD CONSTRAINT fk_formulas_kitchen_id FOREIGN KEY (kitchen_id) REFERENCES public.kitchens(id);
ALTER TABLE ONLY public.own_ingredients
    ADD CONSTRAINT fk_own_ingredients_kitchen_id FOREIGN KEY (kitchen_id) REFERENCES public.kitchens(id);
ALTER TABLE ONLY public.pans
    ADD CONSTRAINT fk_pans_kitchen_id FOREIGN KEY (kitchen_id) REFERENCES public.kitchens(id);
ALTER TABLE ONLY public.revisions
    ADD CONSTRAINT fk_revisions_formula_id FOREIGN KEY (formula_id) REFERENCES public.formulas(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.revisions
    ADD CONSTRAINT fk_revisions_kitchen_id FOREIGN KEY (kitchen_id) REFERENCES public.kitchens(id);
ALTER TABLE ONLY public.takings
    ADD CONSTRAINT fk_takings_formula_id FOREIGN KEY (formula_id) REFERENCES public.formulas(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.takings
    ADD CONSTRAINT fk_takings_kitchen_id FOREIGN KEY (kitchen_id) REFERENCES public.kitchens(id);

# frozen_string_literal: true

require "test_helper"

module Thistle
  # Against published treatments: what a botanist's key would look at to part two plants is what the duel puts first.
  # FNA: Flora of North America; G&C: Gleason and Cronquist (1991), Manual of Vascular Plants; Stace: New Flora of the
  # British Isles; Jepson: The Jepson Manual (2012). All recalled: the texts could not be opened here.
  class BotanyTest < Minitest::Test
    DECISIVE = [
      %w[amur_honeysuckle northern_bush_honeysuckle leaf_margin|pith G&C],
      %w[amur_honeysuckle morrows_honeysuckle leaf_tip|flower_stalk G&C],
      %w[morrows_honeysuckle tatarian_honeysuckle leaf_underside|flower_colour G&C],
      %w[morrows_honeysuckle fly_honeysuckle pith G&C],
      %w[japanese_honeysuckle coral_honeysuckle leaf_base|flower_colour FNA],
      %w[oriental_bittersweet american_bittersweet fruit_place|flower_cluster FNA],
      %w[japanese_barberry american_barberry thorns|leaf_margin FNA],
      %w[tree_of_heaven staghorn_sumac leaf_margin|sap G&C],
      %w[tree_of_heaven black_walnut leaf_margin|pith|smell G&C],
      %w[autumn_olive russian_olive leaf_shape|leaf_tint G&C],
      %w[autumn_olive silver_buffaloberry leaf_arrangement G&C],
      %w[common_buckthorn glossy_buckthorn leaf_margin|thorns|veins FNA],
      %w[common_buckthorn roughleaf_dogwood leaf_margin|inner_wood G&C], %w[burning_bush wahoo bark|leaf_underside FNA],
      %w[multiflora_rose carolina_rose leaf_base|flower_cluster|flower_colour FNA],
      %w[porcelain_berry wild_grape pith|bark FNA],
      %w[himalayan_blackberry trailing_blackberry leaf_type|stem_section|leaf_underside Jepson],
      %w[wineberry black_raspberry thorns|stem_surface FNA],
      %w[garlic_mustard cutleaf_toothwort leaf_type FNA], %w[dames_rocket wild_blue_phlox petals|leaf_arrangement G&C],
      %w[purple_loosestrife winged_loosestrife flower_cluster|leaf_arrangement G&C],
      %w[purple_loosestrife fireweed leaf_arrangement|petals|stem_section G&C],
      %w[canada_thistle bull_thistle root_form|stem_surface|bracts FNA],
      %w[bull_thistle field_thistle leaf_underside|bracts|stem_section FNA],
      %w[cut_leaved_teasel common_teasel leaf_margin Stace],
      %w[giant_hogweed cow_parsnip height|stem_tint|leaf_length Stace],
      %w[wild_parsnip golden_alexanders leaf_type|stem_section G&C],
      %w[leafy_spurge flowering_spurge flower_colour|leaf_tint FNA],
      %w[eurasian_watermilfoil northern_watermilfoil leaflet_pairs FNA],
      %w[hydrilla common_elodea whorl_count|water_edge FNA],
      %w[curly_leaf_pondweed american_pondweed water_edge|floats FNA], %w[japanese_stiltgrass white_grass midrib FNA],
      %w[common_reed american_reed stem_surface|stem_tint FNA], %w[johnson_grass indiangrass root_form FNA],
      %w[white_mulberry red_mulberry leaf_surface|leaf_underside FNA], %w[norway_maple sugar_maple sap FNA],
      %w[princess_tree northern_catalpa flower_colour|fruit|leaf_arrangement|pith G&C],
      %w[shiny_geranium doves_foot_geranium leaf_underside|leaf_surface|stem_surface Stace],
      %w[himalayan_balsam jewelweed flower_colour|leaf_arrangement Stace],
      %w[ground_ivy self_heal leaf_margin|leaf_shape|flower_cluster Stace],
      %w[french_broom scotch_broom flower_cluster|flower_width Jepson],
      %w[mile_a_minute arrow_leaved_tearthumb leaf_shape|leaf_base FNA],
      # The look-alikes of the second reading.
      %w[wild_carrot poison_hemlock stem_surface|stem_tint|stem_core FNA],
      %w[cow_parsley poison_hemlock stem_surface|stem_section|stem_tint Stace],
      %w[wild_carrot water_hemlock stem_surface|leaf_type FNA],
      %w[purslane spotted_spurge sap|leaf_surface|flower_colour FNA],
      %w[prostrate_knotweed spotted_spurge sap|stipules|leaf_arrangement FNA],
      %w[red_raspberry wineberry thorns|stem_surface FNA],
      %w[red_raspberry black_raspberry thorns|fruit_colour|leaf_type G&C],
      %w[upright_wood_sorrel creeping_wood_sorrel nodes|habit Stace],
      %w[round_headed_bush_clover sericea_lespedeza flower_cluster|fruit_place G&C],
      %w[round_headed_bush_clover slender_lespedeza flower_cluster|flower_colour|fruit_place G&C],
      %w[greater_periwinkle periwinkle leaf_length|leaf_shape|height Stace],
      %w[malta_star_thistle yellow_star_thistle bracts Jepson],
      %w[clasping_pondweed curly_leaf_pondweed stem_section|water_edge FNA],
      %w[strawberry_bush burning_bush bark|petals FNA],
      %w[strawberry_bush wahoo leaf_base|flower_colour|petals FNA],
      %w[running_strawberry_bush wintercreeper winter_leaf|leaf_surface G&C],
      %w[heartleaf_peppervine porcelain_berry leaf_mix|leaf_type FNA], %w[heartleaf_peppervine wild_grape pith FNA],
      %w[blue_vervain purple_loosestrife leaf_margin|flower_width|flower_cluster FNA],
      %w[blazing_star purple_loosestrife petals|leaf_arrangement FNA],
      %w[swamp_loosestrife purple_loosestrife flower_cluster|fruit_place FNA],
      %w[smooth_brome reed_canary_grass seed_head FNA],
      %w[orchard_grass reed_canary_grass root_form|seed_head|stand FNA], %w[silverberry russian_olive thorns|twig FNA],
      %w[silverberry autumn_olive leaf_tint|fruit_colour|thorns FNA],
      %w[diffuse_knapweed spotted_knapweed bracts|flower_colour FNA],
      %w[cornflower spotted_knapweed leaf_type|flower_colour FNA], %w[false_nettle stinging_nettle stem_surface FNA],
      %w[false_nettle wood_nettle leaf_arrangement|stem_surface FNA],
      %w[spotted_dead_nettle yellow_archangel flower_colour Stace],
      %w[bells_honeysuckle tatarian_honeysuckle leaf_underside G&C],
      %w[bells_honeysuckle morrows_honeysuckle flower_colour G&C],
      %w[american_frogbit water_hyacinth flower_colour|petals|floats FNA],
      %w[water_lettuce water_hyacinth flower_colour|petals|leaf_surface|veins FNA],
      %w[paper_mulberry white_mulberry leaf_surface|twig|fruit_colour FNA],
      %w[paper_mulberry red_mulberry twig|leaf_arrangement|fruit_colour FNA],
      %w[alfalfa white_sweet_clover flower_colour FNA], %w[white_prairie_clover white_sweet_clover leaf_type FNA],
      %w[fennel wild_parsnip leaf_type Jepson],
      %w[herb_robert shiny_geranium leaf_type|leaf_underside|leaf_surface|smell|stem_surface Stace],
      %w[rhododendron_ponticum cherry_laurel flower_colour|fruit|petals|flower_cluster Stace],
      %w[athel saltcedar winter_leaf|habit|autumn_leaf|twig FNA],
      %w[spanish_broom scotch_broom stem_section Jepson], %w[white_broom scotch_broom flower_colour Jepson],
      %w[portuguese_broom scotch_broom pod_skin|fruit_colour Jepson], %w[umbrella_sedge papyrus height|stem_core FNA],
      %w[giant_reed common_reed auricles|ligule FNA], %w[giant_hogweed poison_hemlock leaf_type|stem_surface Stace]
    ].freeze

    def test_the_duel_puts_first_what_a_botanist_would_look_at
      assert_operator DECISIVE.size, :>=, 80
      faults = DECISIVE.reject do |left, right, decisive, _|
        rows = Core::Identify::Duel.new(*[left, right].map { |key| Testing.plant(key) }).rows
        decisive.split("|").include?(rows.first.character.key)
      end

      assert_empty(faults.map { |left, right, *| "#{left} and #{right}" })
    end
  end
end

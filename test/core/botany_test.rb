# frozen_string_literal: true

require "test_helper"

module Thistle
  # Against published treatments: what a botanist's key would look at to part two plants is what the duel puts first.
  # FNA: Flora of North America; G&C: Gleason and Cronquist (1991), Manual of Vascular Plants; Stace: New Flora of the
  # British Isles; Jepson: The Jepson Manual (2012). All recalled: the texts could not be opened here.
  class BotanyTest < Minitest::Test
    DECISIVE = [
      %w[amur_honeysuckle northern_bush_honeysuckle leaf_margin|pith G&C], %w[amur_honeysuckle morrows_honeysuckle leaf_tip|flower_stalk G&C],
      %w[morrows_honeysuckle tatarian_honeysuckle leaf_underside|flower_colour G&C], %w[morrows_honeysuckle fly_honeysuckle pith G&C],
      %w[japanese_honeysuckle coral_honeysuckle leaf_base|flower_colour FNA], %w[oriental_bittersweet american_bittersweet fruit_place|flower_cluster FNA],
      %w[japanese_barberry american_barberry thorns|leaf_margin FNA], %w[tree_of_heaven staghorn_sumac leaf_margin|sap G&C],
      %w[tree_of_heaven black_walnut leaf_margin|pith|smell G&C], %w[autumn_olive russian_olive leaf_shape|leaf_tint G&C],
      %w[autumn_olive silver_buffaloberry leaf_arrangement G&C], %w[common_buckthorn glossy_buckthorn leaf_margin|thorns|veins FNA],
      %w[common_buckthorn roughleaf_dogwood leaf_margin|inner_wood G&C], %w[burning_bush wahoo bark|leaf_underside FNA],
      %w[multiflora_rose carolina_rose leaf_base|flower_cluster|flower_colour FNA], %w[porcelain_berry wild_grape pith|bark FNA],
      %w[himalayan_blackberry trailing_blackberry leaf_type|stem_section|leaf_underside Jepson], %w[wineberry black_raspberry thorns|stem_surface FNA],
      %w[garlic_mustard cutleaf_toothwort leaf_type FNA], %w[dames_rocket wild_blue_phlox petals|leaf_arrangement G&C],
      %w[purple_loosestrife winged_loosestrife flower_cluster|leaf_arrangement G&C], %w[purple_loosestrife fireweed leaf_arrangement|petals|stem_section G&C],
      %w[canada_thistle bull_thistle root_form|stem_surface|bracts FNA], %w[bull_thistle field_thistle leaf_underside|bracts|stem_section FNA],
      %w[cut_leaved_teasel common_teasel leaf_margin Stace], %w[giant_hogweed cow_parsnip height|stem_tint|leaf_length Stace],
      %w[wild_parsnip golden_alexanders leaf_type|stem_section G&C], %w[leafy_spurge flowering_spurge flower_colour|leaf_tint FNA],
      %w[eurasian_watermilfoil northern_watermilfoil leaflet_pairs FNA], %w[hydrilla common_elodea whorl_count|water_edge FNA],
      %w[curly_leaf_pondweed american_pondweed water_edge|floats FNA], %w[japanese_stiltgrass white_grass midrib FNA],
      %w[common_reed american_reed stem_surface|stem_tint FNA], %w[johnson_grass indiangrass root_form FNA],
      %w[white_mulberry red_mulberry leaf_surface|leaf_underside FNA], %w[norway_maple sugar_maple sap FNA],
      %w[princess_tree northern_catalpa flower_colour|fruit|leaf_arrangement|pith G&C], %w[shiny_geranium doves_foot_geranium leaf_underside|leaf_surface|stem_surface Stace],
      %w[himalayan_balsam jewelweed flower_colour|leaf_arrangement Stace], %w[ground_ivy self_heal leaf_margin|leaf_shape|flower_cluster Stace],
      %w[french_broom scotch_broom flower_cluster|flower_width Jepson], %w[mile_a_minute arrow_leaved_tearthumb leaf_shape|leaf_base FNA]
    ].freeze

    def test_the_duel_puts_first_what_a_botanist_would_look_at
      assert_operator DECISIVE.map(&:first).uniq.size, :>=, 30
      faults = DECISIVE.reject do |left, right, decisive, _|
        rows = Core::Identify::Duel.new(*[left, right].map { |key| Testing.plant(key) }).rows
        decisive.split("|").include?(rows.first.character.key)
      end

      assert_empty(faults.map { |left, right, *| "#{left} and #{right}" })
    end
  end
end

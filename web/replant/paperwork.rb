# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What is handed out of a plan: the order list, the sheet for the bed, the plants as places.
      module Paperwork
        COLUMNS = %w[letter native scientific stock number seed_g order_g order_by plant_from plant_to share_percent
                     caution].freeze

        module_function

        def csv(board)
          rows = board.rows.map do |row|
            amount = [row.count, row.bulk_g&.round(1), row.order_g&.round(1)]
            days = [row.order_by, row.planting&.from_on, row.planting&.to_on]
            [row.letter, row.native.name, row.native.scientific, row.stock, *amount, *days, (row.share * 100).round(1),
             row.native.caution]
          end
          Formats::CsvFile.write(COLUMNS, rows)
        end

        # The bytes of the PDF: the bed, its key, who carries what.
        def pdf(board, picture)
          pdf = Paper.open(board.patch.property.habits.paper, title: "Planting plan #{board.patch.code}")
          plain = Paper.method(:plain)
          pdf.text plain["#{board.patch.code}, #{board.patch.plant&.name || "planting"}"], size: 16, style: :bold
          pdf.text plain["#{board.units.area(board.bed[:area_m2])}. Have buried lines located before anyone digs."],
                   size: 9, color: Paper::SOFT
          pdf.move_down 8
          pdf.svg picture, width: pdf.bounds.width * fitting(board), enable_web_requests: false
          pdf.move_down 10
          key(pdf, board)
          carried(pdf, board) unless board.plan.seed?
          pdf.render
        end

        # As wide as the page, or as high as two thirds of it.
        def fitting(board)
          [1.0, 0.95 * board.box[2] / (board.box[3] * 1.07)].min.clamp(0.2, 1.0)
        end

        def key(pdf, board)
          rows = board.order.map do |row|
            amount = row.count ? row.count.to_s : board.units.mass(row.bulk_g)
            window = row.planting && "#{row.planting.from_on} to #{row.planting.to_on}"
            named = ["#{row.native.name}, #{row.native.scientific}", row.native.caution].compact.join("\n")
            [row.letter, named, amount,
             Core::Replant::Native::STOCK[row.stock], window].map { |cell| Paper.plain(cell) }
          end
          how = { borders: [:bottom], border_color: Paper::RULE, size: 8, padding: [3, 4] }
          pdf.table([["", "Native", "How many", "As", "In the ground"], *rows], header: true, width: pdf.bounds.width,
                                                                                cell_style: how)
        end

        def carried(pdf, board)
          pdf.move_down 8
          board.strips.each do |strip|
            kinds = strip.kinds.map { |n, many| "#{board.rows[n].letter} #{many}" }.join(", ")
            words = "Person #{strip.person}: #{strip.count} plants (#{kinds}), #{strip.walks} walks"
            pdf.text Paper.plain(words), size: 8
          end
        end

        # Each plant as a point, from the first on.
        def features(board)
          plane = board.patch.ground.plane
          east, north = board.bed[:origin]
          board.plants.lazy.each_with_index.map do |(x, y, n), number|
            lon, lat = plane.place(x + east, y + north)
            shape = Core::Survey::Shape.new({ "type" => "Point", "coordinates" => [lon, lat] }, [])
            row = board.rows[n]
            { shape:, id: number, properties: { name: row.native.name, scientific: row.native.scientific,
                                                letter: row.letter, stock: row.stock } }
          end
        end
        private_class_method :fitting, :key, :carried
      end
    end
  end
end

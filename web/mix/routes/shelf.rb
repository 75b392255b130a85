# frozen_string_literal: true

require "csv"

module Thistle
  module Web
    module Mix
      module Routes
        # The shelf: products as their labels describe them, how much is left, which is used for what.
        module Shelf
          def self.registered(app)
            listed(app)
            kept(app)
            used(app)
          end

          def self.listed(app)
            app.get "/mix/shelf" do
              shelf = Mix::Shelf.new(property, today)
              show("mix/shelf", shelf:, form: Form::Blank.new) { shelf.rows.map { |row| Answers.product(row) } }
            end

            app.get "/mix/shelf/file" do
              content_type "text/csv", charset: "utf-8"
              attachment "shelf.csv"
              ShelfFile.write(Store::Product.live.here.named.all, units, today)
            end

            app.post "/mix/shelf/file" do
              file = Upload.read(params["file"]) or raise Core::BadInput.new("Choose a file first.", field: :file)
              taken = ShelfFile.new(file[:tempfile].read, units, today).take
              go_to "/mix/shelf", "#{count(taken, "product")} put on the shelf."
            rescue Core::BadInput => e
              show "mix/shelf", status: 422, shelf: Mix::Shelf.new(property, today),
                                form: Form::Blank.new.failed(:file, e.message)
            end

            app.get "/mix/shelf/new" do
              show "mix/product_form", product: nil, form: Forms::Product.untouched(units:, today:)
            end
          end

          def self.kept(app)
            app.post "/mix/shelf" do
              form = Forms::Product.new(params, units:, today:)
              product = form.store or next show("mix/product_form", status: 422, product: nil, form:)
              go_to "/mix/shelf/#{product.id}", "#{product.name} is on the shelf."
            end

            app.get "/mix/shelf/:id" do
              row = Mix::Shelf.new(property, today).row(product_at(params["id"]))
              show("mix/product", row:, form: Form::Blank.new) { Answers.product(row) }
            end

            app.get "/mix/shelf/:id/edit" do
              product = product_at(params["id"])
              show "mix/product_form", product:, form: Forms::Product.of(product, units, today)
            end

            app.put "/mix/shelf/:id" do
              product = product_at(params["id"])
              form = Forms::Product.new(params, units:, today:)
              next go_to("/mix/shelf/#{product.id}", "#{product.name} changed.") if form.store(product)

              show "mix/product_form", status: 422, product: product_at(params["id"]), form:
            end

            app.delete "/mix/shelf/:id" do
              product = product_at(params["id"]).tap(&:take_off)
              offer_undo "/mix/shelf/#{product.id}/undo"
              go_to "/mix/shelf", "#{product.name} was taken off the shelf. Records keep its name."
            end

            app.post "/mix/shelf/:id/undo" do
              product = product_at(params["id"]).tap(&:bring_back)
              go_to "/mix/shelf/#{product.id}", "#{product.name} is back on the shelf."
            end
          end

          def self.used(app)
            app.post "/mix/shelf/:id/count" do
              product = product_at(params["id"])
              form = Forms::Count.new(params, units:, today:)
              if form.store(product)
                next go_to("/mix/shelf/#{product.id}", "Counted: #{units.volume(product.counted_ml)}.")
              end

              show "mix/product", status: 422, row: Mix::Shelf.new(property, today).row(product), form:
            end

            app.post "/mix/in-use" do
              kind = Store::InUse::KINDS.key?(params["kind"]) ? params["kind"] : halt(404)
              product = params["product"].to_s.empty? ? nil : product_at(params["product"])
              Store::InUse.choose(property, kind, product)
              said = product ? "The label of #{product.name} goes before planning values." : "Planning values count."
              go_to "/season/fit?work=#{kind}", said
            end
          end
        end
      end
    end
  end
end

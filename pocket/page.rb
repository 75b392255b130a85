# frozen_string_literal: true

# What the compiled views call to write text.
module Erubi
  SIGNS = { "&" => "&amp;", "<" => "&lt;", ">" => "&gt;", '"' => "&quot;", "'" => "&#39;" }.freeze
  def self.h(text) = text.to_s.gsub(/[&<>"']/, SIGNS)
end

# As much of Rack as views ask.
module Rack
  # Addresses.
  module Utils
    def self.escape_html(text) = Erubi.h(text)
    def self.escape(text) = text.to_s.b.gsub(/[^a-zA-Z0-9_.\-~ ]/) { |byte| format("%%%02X", byte.ord) }.tr(" ", "+")

    def self.build_query(params)
      params.flat_map { |key, value| Array(value).map { |one| "#{escape(key)}=#{escape(one)}" } }.join("&")
    end

    def self.build_nested_query(value, prefix = nil)
      case value
      when Array then value.map { |one| build_nested_query(one, "#{prefix}[]") }.join("&")
      when Hash
        value.map { |key, one| build_nested_query(one, prefix ? "#{prefix}[#{key}]" : key) }.reject(&:empty?).join("&")
      when nil then escape(prefix)
      else "#{escape(prefix)}=#{escape(value)}"
      end
    end
  end
end

module Thistle
  module Pocket
    # A bench's page, out of the server's own views.
    class Page
      include Web::Page
      include Web::Words
      include Web::Marks

      attr_reader :params

      # views: {name => Ruby of its template}; statics: {path => its address}.
      class << self
        attr_accessor :views, :statics
      end

      def initialize(params)
        @params = params
      end

      def knowledge = Core::Knowledge.shipped
      def property = Pocket.land
      def today = Pocket.day
      def units = @units ||= Pocket.land.measures
      def site = Pocket.land.site(today)
      def places = []
      def may?(*, **) = true
      def signs? = false
      def demo? = false
      def once = ""
      def csrf = ""
      def static(path) = Page.statics.fetch(path, path)

      def shelf = Pocket.land.shelf.values.map { |label| Store::Product::OnShelf.new(label) }
      def mixable_shelf = shelf.select { |product| product.label.mixable? }
      def sprayers = Pocket.land.calibrations.values

      def identify_words = Web::Identify::Words.new(property)
      def season_words = @season_words ||= Web::Season::Words.new(property)
      def decide_words = Web::Decide::Words.new(property, today)

      # Parts that read records: as they stood, or not without signal. Parts that ask the rules much more than the
      # answer itself, or that lie folded up, come later, so that nobody waits for them.
      def part(name, **locals)
        case name
        when *LATER then later(name, locals)
        when "_stands" then locals[:patch].stands.to_s
        when "identify/_name" then "" # who is certain names it where there is signal
        when "mix/_board" then WAITS
        when "mix/_ground" then "#{LIMIT}#{super}"
        else super
        end
      end
      LATER = %w[decide/_schools decide/_combination decide/_ways identify/_group].freeze
      WAITS = '<p class="small">The shelf and its records wait for signal.</p>'
      # What nobody worked out is said, and is no "yes".
      LIMIT = '<p class="caution"><span>How much the label still allows on this ground this year is not worked out ' \
              "without signal. Look at the record book before you pour.</span></p>"
      private_constant :WAITS, :LIMIT, :LATER

      # A part that comes later, by its number.
      def rest(number)
        name, locals = @later.fetch(number)
        erb(name, locals:)
      end

      # What a view makes with these locals.
      def erb(name, locals: {}, **)
        kept = @_out_buf
        send(Page.compiled(name.to_s, locals.keys), locals)
      ensure
        @_out_buf = kept
      end

      # The place of a part that comes later.
      def later(name, locals)
        (@later ||= []) << [name, locals]
        %(<div data-later="#{@later.size - 1}"></div>)
      end

      # The name of the method that a template became for such locals.
      def self.compiled(name, keys)
        @compiled ||= {}
        @compiled[[name, keys]] ||= begin
          made = :"view_#{@compiled.size}"
          given = keys.map { |key| "#{key} = locals[:#{key}]\n" }.join
          class_eval("def #{made}(locals)\n#{given}#{views.fetch(name)}\nend", __FILE__, __LINE__)
          made
        end
      end
    end
  end
end

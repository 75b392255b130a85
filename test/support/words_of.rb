# frozen_string_literal: true

require "nokogiri"
require "ripper"
require "yaml"

module Thistle
  # All that a room says, to be read in one go: sentences in its Ruby, text and labels in its views and plots, texts of
  # its knowledge; each once, under its file. Holes of a sentence are written {}.
  class WordsOf
    ROOMS = %w[identify survey season decide mix work recheck replant today records].freeze
    # Of knowledge, which files a room's pages speak from.
    KNOWLEDGE = { "identify" => %w[characters.yml plants], "season" => %w[anchors.yml fits.yml climates.yml],
                  "decide" => %w[methods schools.yml aims.yml goals.yml cautions.yml disposal.yml],
                  "recheck" => %w[returns.yml], "replant" => %w[readying.yml planting.yml natives],
                  "work" => %w[crew.yml kit.yml haul.yml expect.yml], "mix" => %w[actives.yml records.yml] }.freeze
    FOLDERS = %w[core store web pocket formats demo].freeze
    ATTRIBUTES = %w[aria-label placeholder title alt].freeze
    SQL = /\b(SELECT|INSERT|UPDATE|DELETE|CREATE|WHERE|json_)\b/

    SAID = /[[:alpha:]]{2,}[,;:]? +[[:alpha:]{]/ # two words, or one and a hole

    # What is said anywhere, of every room and of none: {file => [text]}.
    def self.everywhere = @everywhere ||= new("**").texts

    # room: one of ROOMS; "**" for all that there is.
    def initialize(room)
      @room = room
    end

    # {file => [text]}
    def texts
      ruby = FOLDERS.flat_map { |folder| Dir["#{ROOT}/#{folder}/#{@room}/**/*.rb"] }
                    .to_h { |file| [file, spoken(File.read(file))] }
      views = Dir["#{ROOT}/web/views/#{@room}/*.erb"].to_h { |file| [file, shown(File.read(file))] }
      files = KNOWLEDGE.fetch(@room, %w[**]).flat_map { |name| Dir["#{ROOT}/knowledge/#{name}{,/*.yml}"].grep(/yml\z/) }
      told = files.to_h { |file| [file, told_in(YAML.safe_load_file(file, permitted_classes: [Date]))] }
      { **ruby, **views, **told }.transform_keys { |file| file.delete_prefix("#{ROOT}/") }
                                 .transform_values(&:uniq).reject { |_, some| some.empty? }.sort.to_h
    end

    private

    # Strings of Ruby that are said, none of code, with {} for what is filled in.
    def spoken(source)
      found, open = [], []
      Ripper.lex(source).each do |_, kind, token, _|
        case kind
        when :on_tstring_beg, :on_heredoc_beg then open << +""
        when :on_tstring_content then open.last&.<<(token)
        when :on_embexpr_beg
          open.last&.<<("{}")
          open << nil
        when :on_embexpr_end then open.pop
        when :on_tstring_end, :on_heredoc_end, :on_label_end then found << open.pop
        end
      end
      found.compact.map(&:strip).grep(SAID).grep_v(SQL)
    end

    # What a view shows: text between tags, labels, and what its Ruby says.
    def shown(source)
      html = source.gsub(/<%[#-].*?%>/m, " ").gsub(/<%=.*?%>/m, "{}").gsub(/<%.*?%>/m, " ")
      tree = Nokogiri::HTML5.fragment(html)
      blocks = tree.xpath(".//text()").map { |node| node.text.gsub(/\s+/, " ").strip }
      labels = ATTRIBUTES.flat_map { |name| tree.xpath(".//@#{name}").map(&:value) }
      (blocks + labels + spoken(source.scan(/<%=?=?-?(.*?)-?%>/m).join("\n"))).grep(/[[:alpha:]]{2}/)
    end

    # Texts anywhere in a file of knowledge.
    def told_in(value)
      case value
      when Hash then value.flat_map { |key, inner| %w[source key].include?(key) ? [] : told_in(inner) }
      when Array then value.flat_map { |inner| told_in(inner) }
      when String then value.include?(" ") ? [value] : []
      else []
      end
    end
  end
end

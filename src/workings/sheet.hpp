#pragma once

#include "plan/report.hpp"
#include "text/text.hpp"
#include "workings/figures.hpp"

#include <initializer_list>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

/// Collects the figures of one shot, station by station: a file a station.
namespace poquito::workings {

struct Binding {
    std::string_view symbol;
    double value;
};
using Bindings = std::vector<Binding>;

/// Puts the numbers in the place of the symbols; names that are not bound (functions) stay.
std::string substituted(std::string_view expression, const Bindings& bindings);

class Sheet {
  public:
    explicit Sheet(const advice::Assessment& assessment)
        : plan_(assessment.plan), report_(assessment.report), notes_(assessment.advice.notes) {}

    std::vector<Figure> take() && { return std::move(figures_); }
    void reach();
    void depth();
    void light();
    void run();
    void worth();

  private:
    const plan::Plan& plan_;
    const plan::Report& report_;
    const std::vector<advice::Note>& notes_;
    std::vector<Figure> figures_;
    advice::Station station_ = advice::Station::reach;

    Figure& add(const char* key, std::string name, std::string value, std::string unit = {}) {
        figures_.push_back(
            {key, station_, std::move(name), std::move(value), std::move(unit), advice::Level::info, {}});
        return figures_.back();
    }
    static Working working(std::string symbol, std::string_view expression, const Bindings& bindings, double result,
                           std::string unit, std::string source) {
        return {std::move(symbol), std::string(expression), substituted(expression, bindings), result,
                std::move(unit),   std::move(source)};
    }
    void weigh(Figure& figure, const char* code) const {
        for (const auto& note : notes_)
            if (note.code == code) figure.weight = note.level;
    }
    Figure& add_length(const char* key, std::string name, double mm) {
        const auto text = text::length_text(mm);
        const auto space = text.find(' ');
        return add(key, std::move(name), text.substr(0, space), text.substr(space + 1));
    }
    std::string measured(gear::Measured part, const char* unit) const;  // the unit, and that it was measured
    void magnification_figures();
    void ring_figures();
    void distance_figures();
    void aperture_figures();
    void blur_limit_figures();
    void single_frame_figures();
    void frame_figures();
    void stack_figures();
    void background_figures();
    void motion_figures();
    void in_pixels(Figure& blur, double mm) const;
    Working reading_working() const;
    Working any_aperture_working() const;
    void source_figures(std::size_t i);
    void shown_figures(std::size_t i);
    Working card_working(std::size_t i) const;
    Working flash_working(std::size_t i) const;
    Working lamp_working(std::size_t i) const;
    void metering_figures(const plan::MeteringReport& metering);
    void balance_figures();
    void freeze();
};

inline constexpr const char* any_train_source =
    "ray matrices; x from the rear focal point to the sensor, F of the whole train";
inline constexpr const char* train_source = "model 1; Ray, Applied Photographic Optics";
inline constexpr const char* depth_source = "model 2, pupil of the whole train";
inline constexpr const char* exposure_source = "model 3; ISO 2720";
inline constexpr const char* guide_source = "model 3; ISO 1230, disc source";

}  // namespace poquito::workings

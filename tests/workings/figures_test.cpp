// The substitution a person sees is plain arithmetic: recompute it with a small calculator and compare.
#include "workings/figures.hpp"
#include "advice/advice.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cctype>
#include <map>
#include <set>
#include <stdexcept>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using namespace poquito::workings;

namespace {

/// + - * / ^, parentheses, functions of one or two arguments.
class Calculator {
  public:
    static double compute(const std::string& text) {
        Calculator calculator(text);
        const double value = calculator.sum();
        if (calculator.at_ != text.size()) throw std::runtime_error("left over: " + text.substr(calculator.at_));
        return value;
    }

  private:
    explicit Calculator(const std::string& text) : text_(text) {}
    const std::string& text_;
    std::size_t at_ = 0;

    char peek() {
        while (at_ < text_.size() && text_[at_] == ' ') ++at_;
        return at_ < text_.size() ? text_[at_] : '\0';
    }
    bool take(char c) {
        if (peek() != c) return false;
        ++at_;
        return true;
    }
    double sum() {
        double value = product();
        for (;;) {
            if (take('+'))
                value += product();
            else if (take('-'))
                value -= product();
            else
                return value;
        }
    }
    double product() {
        double value = power();
        for (;;) {
            if (take('*'))
                value *= power();
            else if (take('/'))
                value /= power();
            else
                return value;
        }
    }
    double power() {
        const double base = atom();
        return take('^') ? std::pow(base, power()) : base;
    }
    double atom() {
        if (take('-')) return -power();
        if (take('(')) {
            const double value = sum();
            if (!take(')')) throw std::runtime_error("no closing parenthesis");
            return value;
        }
        if (std::isalpha(static_cast<unsigned char>(peek()))) return function();
        std::size_t used = 0;
        const double value = std::stod(text_.substr(at_), &used);
        at_ += used;
        return value;
    }
    double function() {
        std::string name;
        while (std::isalnum(static_cast<unsigned char>(peek())) && text_[at_] != ' ') name += text_[at_++];
        if (name == "pi") return M_PI;
        if (!take('(')) throw std::runtime_error("not a function: " + name);
        const double first = sum();
        const double second = take(',') ? sum() : 0;
        if (!take(')')) throw std::runtime_error("no closing parenthesis");
        static const std::map<std::string, double (*)(double, double)> functions = {
            {"log2", [](double a, double) { return std::log2(a); }},
            {"sqrt", [](double a, double) { return std::sqrt(a); }},
            {"sin", [](double a, double) { return std::sin(a); }},
            {"abs", [](double a, double) { return std::abs(a); }},
            {"floor", [](double a, double) { return std::floor(a); }},
            {"ceil", [](double a, double) { return std::ceil(a); }},
            {"min", [](double a, double b) { return std::min(a, b); }},
            {"max", [](double a, double b) { return std::max(a, b); }}};
        return functions.at(name)(first, second);
    }
};

}  // namespace

TEST_CASE("the calculator of this test calculates", "[shoot][workings]") {
    CHECK(Calculator::compute("1 + 2 * 3^2 - (4 - -1) / 5") == 18);
    CHECK(Calculator::compute("max(1, ceil(2.1) + 1)") == 4);
    CHECK(Calculator::compute("2^(-3)") == 0.125);
}

TEST_CASE("every shown substitution evaluates to the reported value", "[shoot][workings][long]") {
    int compared = 0;
    for (unsigned seed = 0; seed < 300; ++seed)
        for (const auto shoot = test::random_shoot(seed); const auto& shot : shoot.shots) {
            const auto assessment = assessment_of(shoot.kit, shot, {});
            for (const auto& figure : figures(assessment)) {
                if (!figure.working) continue;
                const auto& working = *figure.working;
                INFO("seed " << seed << ", " << figure.key << ": " << working.substitution);
                CHECK_FALSE(working.source.empty());
                const double shown = Calculator::compute(working.substitution);
                // Six digits are shown; differences of near-equal numbers lose up to three of them. Whole frames jump.
                const double tolerance = figure.key == "frames" ? std::max(1.0, 1e-3 * working.result)
                                                                : 2e-4 * std::abs(working.result) + 1e-4;
                CHECK(std::abs(shown - working.result) <= tolerance);
                ++compared;
            }
        }
    CHECK(compared > 15000);
}

TEST_CASE("every figure of a full plan has its working", "[shoot][workings]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.tubes = {"t20"};
    shot.rig.closeup_lenses = {"c4"};
    shot.capture.mode = CaptureMode::stack;
    shot.lights = {test::plain_light()};
    shot.ambient = Ambient{};
    shot.background = Background{};
    shot.subject.speed = 10;
    shot.subject.sway_amplitude = 1;
    std::set<std::string> keys;
    for (const auto& figure : figures(assessment_of(shoot.kit, shot, {}))) {
        INFO(figure.key);
        CHECK(figure.working.has_value());
        keys.insert(figure.key);
    }
    CHECK(keys.size() > 25);
    CHECK(keys.contains("magnification"));
    CHECK(keys.contains("background_stops"));
}

TEST_CASE("workings are printed with real signs", "[shoot][workings]") {
    CHECK(pretty("2 * lambda - N_w^2") == "2 \u00d7 \u03bb \u2212 N_w\u00b2");
}

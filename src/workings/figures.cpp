#include "workings/figures.hpp"

#include "sheet.hpp"

#include <cctype>

namespace poquito::workings {

std::string substituted(std::string_view expression, const Bindings& bindings) {
    constexpr int digits = 6;
    std::string text;
    const auto in_name = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; };
    for (std::size_t i = 0; i < expression.size();) {
        if (!std::isalpha(static_cast<unsigned char>(expression[i]))) {
            // digits are copied with what follows, so that 1e-9 is not taken for a name
            const bool number = std::isdigit(static_cast<unsigned char>(expression[i]));
            do text += expression[i++];
            while (number && i < expression.size() && (in_name(expression[i]) || expression[i] == '.'));
            continue;
        }
        std::size_t end = i;
        while (end < expression.size() && in_name(expression[end])) ++end;
        const auto name = expression.substr(i, end - i);
        i = end;
        std::string put(name);
        for (const auto& binding : bindings)
            if (binding.symbol == name) {
                put = text::number_text(binding.value, digits);
                if (binding.value < 0) put.insert(0, "(").append(")");
            }
        text += put;
    }
    return text;
}

std::vector<Figure> figures(const advice::Assessment& assessment) {
    Sheet sheet(assessment);
    sheet.worth();
    sheet.reach();
    sheet.depth();
    sheet.light();
    sheet.run();
    return std::move(sheet).take();
}

std::string pretty(const std::string& expression) {
    static const std::pair<std::string_view, std::string_view> signs[] = {{"lambda", "\u03bb"}, {" * ", " \u00d7 "},
                                                                          {" - ", " \u2212 "},  {"^2", "\u00b2"},
                                                                          {"(-", "(\u2212"},    {"pi", "\u03c0"}};
    std::string text = expression;
    for (const auto& [plain, sign] : signs)
        for (auto at = text.find(plain); at != std::string::npos; at = text.find(plain, at + sign.size()))
            text.replace(at, plain.size(), sign);
    return text;
}

}  // namespace poquito::workings

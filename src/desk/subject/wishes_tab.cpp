#include "desk/subject/wishes_tab.hpp"

#include "desk/subject/wish_strip.hpp"
#include "desk/toolkit/choice_chips.hpp"
#include "desk/toolkit/quantity.hpp"
#include "desk/toolkit/theme.hpp"
#include "imaging/colour.hpp"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <array>
#include <cmath>

namespace poquito::desk {

using namespace shoot;

namespace {

// ---- a strip of grounds ------------------------------------------------------------------------------------------

constexpr std::array grounds = {WantedGround::black, WantedGround::dark, WantedGround::as_it_is, WantedGround::light,
                                WantedGround::white};
/// Stops at the edges of the strip's cells, as shoot::tones_of has them.
constexpr std::array<double, 6> ground_edges = {-8, -5, -2.5, 0.5, 2, 3.5};

QColor tone(double stops) {
    constexpr double mid_grey = 0.18, white = 255;
    const auto value =
        static_cast<int>(std::lround(white * imaging::to_encoded(std::clamp(mid_grey * std::exp2(stops), 0.0, 1.0))));
    return {value, value, value};
}

void paint_thing(QPainter& painter, const QRectF& cell) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(tone(0));
    const double r = cell.height() * 0.26;
    painter.drawEllipse(cell.center(), r, r);
}

WishStrip::Cell ground_cell(std::size_t index, const QString& label, const QString& tip) {
    return {label, tip, [index](QPainter& painter, const QRectF& cell) {
                if (grounds[index] == WantedGround::as_it_is) {
                    QLinearGradient all(cell.topLeft(), cell.topRight());
                    all.setColorAt(0, tone(-5));
                    all.setColorAt(1, tone(2));
                    painter.fillRect(cell, all);
                } else {
                    painter.fillRect(cell, tone((ground_edges[index] + ground_edges[index + 1]) / 2));
                }
                paint_thing(painter, cell);
            }};
}

/// A place on a scale of edges, in cells.
template <std::size_t Count>
double on_scale(const std::array<double, Count>& edges, double value) {
    const auto next = std::ranges::upper_bound(edges, value) - edges.begin();
    if (next == 0) return 0;
    if (next == static_cast<std::ptrdiff_t>(Count)) return Count - 1;
    const auto i = static_cast<std::size_t>(next);
    return static_cast<double>(next - 1) + (value - edges[i - 1]) / (edges[i] - edges[i - 1]);
}

// ---- a strip of softness -----------------------------------------------------------------------------------------

constexpr std::array softnesses = {0.01, 0.03, 0.08, 0.2};  // of the frame's width

/// Points of light behind the subject, as large as they come out in a frame that is as wide as the cell.
WishStrip::Cell softness_cell(double share) {
    const auto percent = QStringLiteral("%1 %").arg(share * 100);
    return {percent, QObject::tr("A point behind becomes a disc of %1 of the frame's width, or wider").arg(percent),
            [share](QPainter& painter, const QRectF& cell) {
                painter.fillRect(cell, tone(-3.5));
                constexpr std::array<std::pair<double, double>, 7> points = {
                    {{0.1, 0.3}, {0.26, 0.72}, {0.36, 0.22}, {0.55, 0.58}, {0.68, 0.2}, {0.8, 0.76}, {0.92, 0.4}}};
                const double across = std::max(1.2, share * cell.width());
                // The same light in every disc: a wide one is faint.
                QColor light = tone(2.2);
                constexpr double faintest = 0.3;
                light.setAlphaF(static_cast<float>(std::clamp(2.6 / across, faintest, 1.0)));
                painter.setPen(Qt::NoPen);
                painter.setBrush(light);
                for (const auto& [x, y] : points)
                    painter.drawEllipse(QPointF(cell.left() + x * cell.width(), cell.top() + y * cell.height()),
                                        across / 2, across / 2);
            }};
}

// ---- what is said with a word ------------------------------------------------------------------------------------

struct Look {
    const char* id;
    const char* name;
    int group;  // of those that rule each other out
    void (*set)(Wishes&, bool);
    bool (*is_set)(const Wishes&);
};

template <auto Member, auto Value>
constexpr Look one_of(const char* id, const char* name, int group) {
    return {id, name, group,
            [](Wishes& wishes, bool on) {
                if (on)
                    wishes.*Member = Value;
                else if (wishes.*Member == Value)
                    wishes.*Member = {};
            },
            [](const Wishes& wishes) { return wishes.*Member == Value; }};
}

constexpr std::array looks = {
    one_of<&Wishes::lit_by, WantedLight::flash>("flash", QT_TRANSLATE_NOOP("QObject", "flash alone"), 1),
    one_of<&Wishes::lit_by, WantedLight::ambient>("ambient", QT_TRANSLATE_NOOP("QObject", "no flash"), 1),
    one_of<&Wishes::lit_by, WantedLight::both>("both", QT_TRANSLATE_NOOP("QObject", "both"), 1),
    one_of<&Wishes::movement, WantedMovement::drawn>("drawn", QT_TRANSLATE_NOOP("QObject", "movement drawn"), 2),
    one_of<&Wishes::movement, WantedMovement::frozen>("frozen", QT_TRANSLATE_NOOP("QObject", "frozen"), 2),
    one_of<&Wishes::contrast, WantedContrast::soft>("soft", QT_TRANSLATE_NOOP("QObject", "soft contrast"), 3),
    one_of<&Wishes::contrast, WantedContrast::hard>("hard", QT_TRANSLATE_NOOP("QObject", "hard"), 3),
    one_of<&Wishes::coloured_light, true>("coloured", QT_TRANSLATE_NOOP("QObject", "coloured light"), 4),
    one_of<&Wishes::passes_frame, true>("passes", QT_TRANSLATE_NOOP("QObject", "past the edges"), 5),
};

std::vector<std::string> looks_of(const Wishes& wishes) {
    std::vector<std::string> ids;
    for (const auto& look : looks)
        if (look.is_set(wishes)) ids.emplace_back(look.id);
    return ids;
}

/// Those that are on now; of two that rule each other out the one that was not on before.
void take_looks(Wishes& wishes, const std::vector<std::string>& ids) {
    const auto before = looks_of(wishes);
    const auto is_in = [](const std::vector<std::string>& list, const char* id) {
        return std::ranges::count(list, id) > 0;
    };
    for (const auto& look : looks) look.set(wishes, false);
    for (const bool fresh : {false, true})
        for (const auto& look : looks)
            if (is_in(ids, look.id) && is_in(before, look.id) != fresh) look.set(wishes, true);
}

}  // namespace

WishesTab::WishesTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    auto* heading = addHeading(column, tr("To look like this"));
    forAll_ = captionedButton(
        {"wishesForAllButton", tr("For all"), tr("Every shot that says nothing else is judged by these wishes")}, this);
    heading->addWidget(forAll_);
    connect(forAll_, &QPushButton::clicked, this, &WishesTab::wishForAll);
    auto* group = addGroup(column, {});
    const auto add = [&](QWidget* strip) { group->addWidget(strip, group->rowCount(), 0, 1, 2); };
    grounds_ = new WishStrip(
        "groundStrip", tr("What lies behind"),
        {ground_cell(0, tr("black"), tr("Five stops under mid grey, or darker: no detail is seen")),
         ground_cell(1, tr("dark"), tr("From five to two and a half stops under mid grey")),
         ground_cell(2, tr("as it is"), tr("However it comes out; nothing is said of it")),
         ground_cell(3, tr("light"), tr("From half a stop to two over mid grey")),
         ground_cell(4, tr("white"), tr("From two stops over mid grey to as white as a file holds, and a stop more"))},
        this);
    add(grounds_);
    connect(grounds_, &WishStrip::chosen, this, [this](int index) {
        this->document().editWishes({tr("Wish a ground")}, [&](Wishes& wishes) {
            wishes.ground = index < 0 ? WantedGround::unsaid : grounds[static_cast<std::size_t>(index)];
        });
    });
    softness_ = new WishStrip("softnessStrip", tr("How soft it is behind"),
                              {softness_cell(softnesses[0]), softness_cell(softnesses[1]), softness_cell(softnesses[2]),
                               softness_cell(softnesses[3])},
                              this);
    add(softness_);
    connect(softness_, &WishStrip::chosen, this, [this](int index) {
        this->document().editWishes({tr("Wish softness")}, [&](Wishes& wishes) {
            wishes.softness = index < 0 ? std::nullopt : std::optional(softnesses[static_cast<std::size_t>(index)]);
        });
    });
    looks_ = new ChoiceChips(this);
    nameControl(looks_, {"lookChips", tr("Light, movement, contrast"),
                         tr("What is meant is not warned of, and what is missing of it is told")});
    add(looks_);
    connect(looks_, &ChoiceChips::chosen, this, [this](const std::vector<std::string>& ids) {
        this->document().editWishes({tr("Wish a look")}, [&](Wishes& wishes) { take_looks(wishes, ids); });
    });
    brighter_ = addField(
        group, {"brighterField", tr("Brighter by"), tr("Than a correct exposure, on purpose; below 0: darker")},
        stopsQuantity());
    constexpr int narrowest = 72;
    brighter_->setMinimumWidth(narrowest);
    connect(brighter_, &QuantityField::valueEdited, this, [this](double stops) {
        this->document().editWishes(
            {tr("Wish it brighter"), QStringLiteral("brighter#%1").arg(brighter_->visit())},
            [&](Wishes& wishes) { wishes.brighter = stops == 0 ? std::nullopt : std::optional(stops); });
    });
    column->addStretch();
}

void WishesTab::wishForAll() {
    const Wishes wanted = document().wishes();
    const auto index = static_cast<std::size_t>(document().current());
    document().edit({tr("Wish it for the whole shoot")}, [&](Shoot& shoot) {
        shoot.terms.wishes = wanted;
        shoot.shots[index].wishes = {};
    });
}

void WishesTab::showShot(const Shot& shot, const plan::Report& report) {
    const Wishes all = document().wishes();
    std::optional<std::size_t> ground, softness;
    for (std::size_t i = 0; i < grounds.size(); ++i)
        if (all.ground == grounds[i]) ground = i;
    std::optional<double> now;
    const double off = report.light.front_total.value_or(0) - all.brighter.value_or(0);
    if (shot.background && report.light.background) now = on_scale(ground_edges, *report.light.background - off);
    grounds_->show(ground, now);
    constexpr std::array<double, 5> edges = {0.005, 0.017, 0.049, 0.126, 0.32};
    if (all.softness) softness = std::min<std::size_t>(3, static_cast<std::size_t>(on_scale(edges, *all.softness)));
    const auto& disc = report.sharpness.background_disc_share;
    softness_->show(softness, shot.background && disc ? std::optional(on_scale(edges, *disc)) : std::nullopt);
    std::vector<std::pair<std::string, std::string>> options;
    options.reserve(looks.size());
    for (const auto& look : looks) options.emplace_back(look.id, QObject::tr(look.name).toStdString());
    looks_->show(options, looks_of(all));
    brighter_->setValue(all.brighter.value_or(0));
    const bool own = shot.wishes != Wishes{};
    forAll_->setText(!own && all != Wishes{} ? tr("Of all") : tr("For all"));
    forAll_->setEnabled(own);
}

}  // namespace poquito::desk

#include "desk/subject/moc_wishes_tab.moc"

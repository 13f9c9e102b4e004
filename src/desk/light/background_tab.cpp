#include "desk/light/background_tab.hpp"

#include "desk/light/light_scale.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "text/text.hpp"
#include "whatif/glass_setups.hpp"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;
using light::BackgroundLook;

BackdropTab::BackdropTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* first = addColumn(3);
    addBackground(first);
    first->addStretch();
    auto* second = addColumn(5);
    second->setSpacing(4);
    addLooks(second);
    second->addStretch();
    scale_ = new LightScale(document, LightScale::Shows::background, this);
    addDrawing(scale_, 7);
}

void BackdropTab::addBackground(QLayout* column) {
    auto* group = addGroup(column, {});
    addCheck(
        group, {"backgroundCheck", tr("Background"), tr("A card or wall that faces the camera")},
        [](const Shot& s) { return s.background.has_value(); },
        [](Shot& s, bool on) { s.background = on ? std::optional(Background{}) : std::nullopt; });
    const auto number = [&](const Caption& caption, const Quantity& quantity, auto member) {
        backgroundOnly_.push_back(addQuantity(
            group, caption, quantity,
            [member](const Shot& s) {
                Background shown = s.background.value_or(Background{});
                return member(shown);
            },
            [member](Shot& s, double v) {
                if (s.background) member(*s.background) = v;
            }));
    };
    number({"backgroundDistanceField", tr("Behind"), tr("From the subject's centre")}, lengthQuantity(),
           [](Background& b) -> double& { return b.distance; });
    number({"backgroundReflectanceField", tr("Reflectance"),
            tr("Black velvet 1 %, black card 4 %, mid grey 18 %, white 90 %")},
           shareQuantity(text::range::share), [](Background& b) -> double& { return b.reflectance; });
    number({"backgroundDetailField", tr("Detail"), tr("Size of a detail one might recognise in it")},
           lengthQuantity(text::range::size), [](Background& b) -> double& { return b.detail; });
    addOwnLight(group);
    const auto size = [&](const Caption& caption, std::optional<double> Background::*member) {
        backgroundOnly_.push_back(addQuantity(
            group, caption, lengthQuantity(),
            [member](const Shot& s) { return (s.background.value_or(Background{}).*member).value_or(0); },
            [member](Shot& s, double v) {
                if (s.background) (*s.background).*member = v > 0 ? std::optional(v) : std::nullopt;
            }));
    };
    size({"backgroundWidthField", tr("Wide"), tr("Checked against the field there; 0: as large as it has to be")},
         &Background::width);
    size({"backgroundHeightField", tr("High"), tr("Checked against the field there; 0: as large as it has to be")},
         &Background::height);
}

/// A screen, a lit card, a window: it is as bright at every distance.
void BackdropTab::addOwnLight(QGridLayout* group) {
    shines_ = addCheck(
        group,
        {"shinesCheck", tr("Shines by itself"), tr("Screen, card lit from behind, window, sky, water with sun on it")},
        [](const Shot& s) { return s.background && s.background->own_ev100; },
        [](Shot& s, bool on) {
            constexpr double screen = 11;  // EV at ISO 100 of a bright screen, 250 cd/m^2 (ISO 2720)
            if (s.background) s.background->own_ev100 = on ? std::optional(screen) : std::nullopt;
        });
    spanRow(group, shines_);
    shiningOnly_ = {addQuantity(
                        group,
                        {"ownReadingField", tr("It reads"),
                         tr("EV at ISO 100 of a spot meter: a screen 10 to 11, a grey sky 12, a blue sky 14")},
                        exposureValueQuantity(),
                        [](const Shot& s) { return s.background.value_or(Background{}).own_ev100.value_or(11); },
                        [](Shot& s, double v) {
                            if (s.background && s.background->own_ev100) s.background->own_ev100 = v;
                        }),
                    addQuantity(
                        group,
                        {"gradientField", tr("Gradient"),
                         tr("Stops that its light grows from the lower edge of the frame to the upper")},
                        stopsQuantity(), [](const Shot& s) { return s.background.value_or(Background{}).gradient; },
                        [](Shot& s, double v) {
                            if (s.background) s.background->gradient = v;
                        })};
}

void BackdropTab::addLooks(QVBoxLayout* column) {
    addHeading(column, tr("Make it"));
    auto* bar = new QHBoxLayout;
    bar->setSpacing(4);
    column->addLayout(bar);
    const std::pair<const char*, QString> names[] = {
        {"lookBlack", tr("black")}, {"lookDark", tr("dark")}, {"lookGrey", tr("coloured")}, {"lookWhite", tr("white")}};
    for (int i = 0; i < 4; ++i) {
        auto* button = new QToolButton(this);
        button->setText(names[i].second);
        nameControl(button, {names[i].first, names[i].second,
                             tr("What would make the background look so, the subject's exposure kept")});
        button->setCheckable(true);
        button->setProperty("chip", true);
        connect(button, &QToolButton::clicked, this, [this, i] {
            wanted_ = static_cast<BackgroundLook>(i);
            refresh();
        });
        bar->addWidget(button);
        looks_.push_back(button);
    }
    bar->addStretch();
    text_ = new Sentence(2, this);
    text_->setObjectName(QStringLiteral("backdropText"));
    column->addWidget(text_);
    constexpr int most = 7;  // ways there are
    for (int i = 0; i < most; ++i) {
        auto* way = captionedButton({"", {}, tr("One change; Undo takes it back")}, this);
        way->setObjectName(QStringLiteral("backdropWay%1").arg(i + 1));
        column->addWidget(way);
        ways_.push_back(way);
    }
    recipe_ = captionedButton({"backdropRecipe", tr("The whole set"),
                               tr("Card, distance and light for it, so that subject and background are lit apart")},
                              this);
    column->addWidget(recipe_);
    column->addSpacing(6);
    addHeading(column, tr("Glass"));
    const std::pair<const char*, QString> ways[] = {{"brightFieldButton", tr("Bright field")},
                                                    {"darkFieldButton", tr("Dark field")}};
    for (int i = 0; i < 2; ++i) {
        glass_[i] =
            captionedButton({ways[i].first, ways[i].second, tr("A whole set for glass; Undo takes it back")}, this);
        column->addWidget(glass_[i]);
        connect(glass_[i], &QPushButton::clicked, this, [this, i] {
            const auto set = whatif::glass_lit(document().assessment()->plan, static_cast<whatif::GlassSetup>(i));
            if (set) take(tr("Light glass"), set->shot);
        });
    }
    glassSays_ = new Sentence(4, this);
    glassSays_->setObjectName(QStringLiteral("glassText"));
    column->addWidget(glassSays_);
}

void BackdropTab::take(const QString& what, const Shot& shot) {
    document().editShot({what}, [&](Shot& now) { now = shot; });
}

void BackdropTab::showWays(const Shot& shot) {
    const auto ways = whatif::ways_to(document().assessment()->plan, wanted_);
    for (std::size_t i = 0; i < ways_.size(); ++i) {
        ways_[i]->setVisible(i < ways.size());
        ways_[i]->disconnect(this);
        if (i >= ways.size()) continue;
        ways_[i]->setText(tr("%1: %2").arg(toQt(ways[i].label), stopsText(ways[i].stops)));
        ways_[i]->setAccessibleName(ways_[i]->text());
        connect(ways_[i], &QPushButton::clicked, this,
                [this, way = ways[i]] { take(tr("Change the background"), way.shot); });
    }
    const bool set = wanted_ == BackgroundLook::black || wanted_ == BackgroundLook::white;
    const auto recipe = set ? whatif::set_recipe(document().assessment()->plan, wanted_)
                            : whatif::BackdropChange{.label = {}, .shot = shot};
    recipe_->setVisible(!recipe.label.empty());
    recipe_->setText(tr("Set: %1").arg(toQt(recipe.label)));
    recipe_->setAccessibleName(recipe_->text());
    recipe_->disconnect(this);
    connect(recipe_, &QPushButton::clicked, this, [this, recipe] { take(tr("Set up the background"), recipe.shot); });
    if (ways.empty() && recipe.label.empty())
        text_->setText(tr("No single change gives that and keeps the subject's exposure with what is in the kit."));
}

void BackdropTab::showShot(const Shot& shot, const Report& report) {
    QStringList sets;
    for (int i = 0; i < 2; ++i) {
        const auto set = whatif::glass_lit(document().assessment()->plan, static_cast<whatif::GlassSetup>(i));
        glass_[i]->setEnabled(set.has_value());
        if (set) sets << toQt(set->label);
    }
    glassSays_->setText(sets.isEmpty() ? tr("Nothing has a size at infinity, or nothing in the kit shines.")
                                       : sets.join(QStringLiteral(". ")) + QLatin1Char('.'));
    for (QWidget* control : backgroundOnly_) setRowEnabled(control, shot.background.has_value());
    shines_->setEnabled(shot.background.has_value());
    for (QWidget* control : shiningOnly_) setRowVisible(control, shot.background && shot.background->own_ev100);
    for (std::size_t i = 0; i < looks_.size(); ++i) looks_[i]->setChecked(i == static_cast<std::size_t>(wanted_));
    const auto& look = report.light.background_look;
    text_->setText(!shot.background ? tr("Nothing stands behind: it comes out black.")
                   : look           ? tr("Now it %1, %2 stops from mid grey. One of these would make it so:")
                                .arg(*look == BackgroundLook::grey
                                         ? tr("keeps its colour")
                                         : tr("is %1").arg(QLatin1String(whatif::look_text(*look))),
                                     stopsText(*report.light.background))
                          : tr("No light reaches it: it comes out black."));
    showWays(shot);
    scale_->update();
}

}  // namespace poquito::desk

#include "desk/light/moc_background_tab.moc"

#include "desk/toolkit/choice_chips.hpp"
#include "desk/text/to_qt.hpp"

#include <QMouseEvent>
#include <QResizeEvent>
#include <QToolButton>

#include <algorithm>
#include <utility>

namespace poquito::desk {

namespace {
constexpr int chip_gap = 4;
}

ChoiceChips::ChoiceChips(QWidget* parent) : QWidget(parent) {
    auto policy = QSizePolicy(QSizePolicy::Preferred, QSizePolicy::Minimum);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void ChoiceChips::show(const std::vector<std::pair<std::string, std::string>>& options,
                       const std::vector<std::string>& on) {
    on_ = on;
    if (options != options_) {
        options_ = options;
        for (auto* chip : chips_) chip->deleteLater();
        chips_.clear();
        for (const auto& [id, name] : options_) {
            auto* chip = new QToolButton(this);
            chip->setText(toQt(name));
            chip->setCheckable(true);
            chip->setProperty("chip", true);
            chip->setObjectName(QStringLiteral("chip-%1").arg(toQt(id).section(QLatin1Char('/'), -1)));
            chip->installEventFilter(this);
            chip->setAccessibleName(toQt(name));
            connect(chip, &QToolButton::clicked, this, [this, id = id](bool checked) {
                auto ids = on_;
                if (checked)
                    ids.push_back(id);
                else
                    std::erase(ids, id);
                Q_EMIT chosen(ids);
            });
            chip->show();
            chips_.push_back(chip);
        }
        arrange(width(), true);
        updateGeometry();
    }
    for (std::size_t i = 0; i < chips_.size(); ++i)
        chips_[i]->setChecked(std::ranges::count(on_, options_[i].first) > 0);
}

bool ChoiceChips::eventFilter(QObject* watched, QEvent* event) {
    const auto chip = std::ranges::find(chips_, watched);
    if (chip == chips_.end()) return false;
    const auto& id = options_[static_cast<std::size_t>(chip - chips_.begin())].first;
    if (event->type() == QEvent::MouseMove) {
        auto* mouse = static_cast<QMouseEvent*>(event);
        if (!(mouse->buttons() & Qt::LeftButton)) return false;
        if (!dragging_ && (*chip)->rect().adjusted(-4, -4, 4, 4).contains(mouse->position().toPoint())) return false;
        if (!dragging_) (*chip)->setDown(false);
        dragging_ = true;
        Q_EMIT chipDragged(id, mouse->globalPosition().toPoint());
        return true;
    }
    if (event->type() == QEvent::MouseButtonRelease && std::exchange(dragging_, false)) {
        (*chip)->setDown(false);
        Q_EMIT chipDropped(id, static_cast<QMouseEvent*>(event)->globalPosition().toPoint());
        return true;  // no click
    }
    return false;
}

QSize ChoiceChips::sizeHint() const { return {180, arrange(std::max(width(), 120), false)}; }
QSize ChoiceChips::minimumSizeHint() const { return {100, arrange(std::max(width(), 100), false)}; }

void ChoiceChips::resizeEvent(QResizeEvent* event) {
    arrange(event->size().width(), true);
    if (event->size().width() != event->oldSize().width()) updateGeometry();
}

int ChoiceChips::arrange(int width, bool place) const {
    int x = 0, y = 0, row = 0;
    for (auto* chip : chips_) {
        const QSize size = chip->sizeHint();
        if (x > 0 && x + size.width() > width) {
            x = 0;
            y += row + chip_gap;
            row = 0;
        }
        if (place) chip->setGeometry(x, y, std::min(size.width(), width), size.height());
        x += size.width() + chip_gap;
        row = std::max(row, size.height());
    }
    return y + row;
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_choice_chips.moc"

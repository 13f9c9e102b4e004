#include "desk/shell/welcome_sheet.hpp"

#include "advice/stations.hpp"
#include "desk/base/theme.hpp"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace poquito::desk {

WelcomeSheet::WelcomeSheet(QWidget* parent) : QFrame(parent) {
    setProperty("sheet", true);
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(56, 48, 56, 40);
    columns->setSpacing(64);
    auto* left = new QVBoxLayout;
    left->setSpacing(8);
    columns->addLayout(left, 1);
    const auto heading = [&](QVBoxLayout* layout, const QString& text) {
        auto* label = new QLabel(text, this);
        label->setFont(textFont(15, QFont::DemiBold));
        label->setWordWrap(true);
        layout->addWidget(label);
        layout->addSpacing(6);
    };
    heading(left, tr("Plan the picture before the camera comes out of the bag"));
    auto* text = new QLabel(
        tr("This shoot has no shots yet. A shot is one intended picture. Poquito computes what its plan comes to, "
           "says what would go wrong, and prints the run sheet."),
        this);
    text->setWordWrap(true);
    left->addWidget(text);
    left->addSpacing(12);
    const auto button = [&](const char* name, const QString& caption, auto wanted) {
        auto* made = new QPushButton(caption, this);
        made->setObjectName(QLatin1String(name));
        made->setMinimumWidth(220);
        left->addWidget(made, 0, Qt::AlignLeft);
        connect(made, &QPushButton::clicked, this, wanted);
    };
    button("welcomeAddButton", tr("Add the first shot"), &WelcomeSheet::shotWanted);
    button("welcomeOpenButton", tr("Open a shoot…"), &WelcomeSheet::openWanted);
    button("welcomeDemoButton", tr("Look at the demo shoot"), &WelcomeSheet::demoWanted);
    left->addSpacing(12);
    recent_ = new QVBoxLayout;
    recent_->setSpacing(2);
    left->addLayout(recent_);
    left->addStretch();

    auto* right = new QVBoxLayout;
    right->setSpacing(4);
    columns->addLayout(right, 1);
    heading(right, tr("The order of work"));
    const QString steps[] = {tr("How big, how deep, how it moves; what fills the frame."),
                             tr("Lens, tubes, close-up lens, converter: the magnification, and what it costs."),
                             tr("The stop, the slice in focus, diffraction; one frame or a stack."),
                             tr("Window or flash, power and distance, what freezes, what the background does."),
                             tr("The checklist and the run sheet."),
                             tr("What was shot, what to correct, what to keep.")};
    for (std::size_t i = 0; i < advice::stations.size(); ++i) {
        auto* name = new QLabel(
            QStringLiteral("%1   %2").arg(i + 1).arg(QLatin1String(advice::station_name(advice::stations[i]))), this);
        name->setFont(textFont(13, QFont::DemiBold));
        right->addWidget(name);
        auto* step = new QLabel(steps[i], this);
        step->setProperty("quiet", true);
        step->setWordWrap(true);
        step->setIndent(21);
        right->addWidget(step);
        right->addSpacing(8);
    }
    right->addStretch();
}

void WelcomeSheet::setRecent(const QStringList& paths) {
    while (auto* item = recent_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    for (const auto& path : paths) {
        auto* link = new QPushButton(QFileInfo(path).fileName(), this);
        link->setToolTip(path);
        link->setProperty("link", true);
        connect(
            link, &QPushButton::clicked, this, [this, path] { Q_EMIT fileWanted(path); }, Qt::QueuedConnection);
        recent_->addWidget(link, 0, Qt::AlignLeft);
    }
}

}  // namespace poquito::desk

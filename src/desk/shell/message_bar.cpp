#include "desk/shell/message_bar.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>

namespace poquito::desk {

MessageBar::MessageBar(QWidget* parent) : QWidget(parent), text_(new QLabel(this)) {
    auto* strip = new QHBoxLayout(this);
    strip->setContentsMargins(8, 4, 8, 4);
    text_->setObjectName(QStringLiteral("problemText"));
    text_->setProperty("problem", true);
    text_->setWordWrap(true);
    text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    strip->addWidget(text_, 1);
    auto* close = new QToolButton(this);
    close->setText(tr("Dismiss"));
    close->setObjectName(QStringLiteral("dismissProblemButton"));
    close->setAccessibleName(tr("Dismiss the message"));
    connect(close, &QToolButton::clicked, this, &QWidget::hide);
    strip->addWidget(close);
    hide();
}

void MessageBar::say(const QString& problem) {
    text_->setText(problem);
    setVisible(!problem.isEmpty());
}

}  // namespace poquito::desk

#include "desk/shell/moc_message_bar.moc"

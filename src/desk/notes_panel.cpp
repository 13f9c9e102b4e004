#include "desk/notes_panel.hpp"

#include "desk/document.hpp"
#include "desk/drafting.hpp"
#include "desk/theme.hpp"

#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QResizeEvent>
#include <QVBoxLayout>

namespace poquito::desk {

/// One note on its wash. The mark's shape says the level: a square stop, a triangle, a dot; a cross for safety.
class NoteCard : public QWidget {
  public:
    explicit NoteCard(QWidget* parent) : QWidget(parent) {
        auto* layout = new QVBoxLayout(this);
        layout->setContentsMargins(30, 7, 8, 6);
        layout->setSpacing(1);
        text_ = new QLabel(this);
        text_->setWordWrap(true);
        text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
        layout->addWidget(text_);
        remedy_ = new QPushButton(this);
        remedy_->setProperty("link", true);
        layout->addWidget(remedy_, 0, Qt::AlignLeft);
        setFocusPolicy(Qt::NoFocus);
    }

    QPushButton* remedy() const { return remedy_; }

    void show(const shoot::Note& note) {
        level_ = note.level;
        safety_ = note.concern == shoot::Concern::safety;
        const auto code = QString::fromStdString(note.code);
        setObjectName(QStringLiteral("note-") + code);
        text_->setText(QString::fromStdString(note.text));
        text_->setObjectName(QStringLiteral("noteText-") + code);
        remedy_->setVisible(note.remedy != nullptr);
        if (note.remedy) {
            remedy_->setText(QString::fromStdString(note.remedy->label));
            remedy_->setObjectName(QStringLiteral("remedy-") + code);
            remedy_->setAccessibleName(remedy_->text());
            remedy_->setToolTip(tr("Apply this change to the plan; it can be undone"));
        } else {
            remedy_->setObjectName({});
        }
        const char* levels[] = {QT_TR_NOOP("Information"), QT_TR_NOOP("Caution"), QT_TR_NOOP("Stop")};
        setAccessibleName(safety_ ? tr("Safety") : tr(levels[static_cast<int>(level_)]));
        setToolTip(accessibleName());
        update();
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        const Theme& t = theme();
        const bool stop = level_ == shoot::Level::stop, info = level_ == shoot::Level::info;
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(Qt::NoPen);
        painter.setBrush(stop ? t.stopWash : info ? t.linkWash : t.cautionWash);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0, 0, 0, -1), 3, 3);
        const QPointF mark(15, 16);
        if (safety_) {
            painter.setPen(QPen(t.caution, 2.4));
            painter.drawLine(mark - QPointF(5, 0), mark + QPointF(5, 0));
            painter.drawLine(mark - QPointF(0, 5), mark + QPointF(0, 5));
        } else if (stop) {
            painter.setBrush(t.stop);
            painter.drawRect(QRectF(mark - QPointF(4.5, 4.5), QSizeF(9, 9)));
        } else if (info) {
            painter.setBrush(t.link);
            painter.drawEllipse(mark, 3, 3);
        } else {
            drawStanding(painter, mark, shoot::Standing::doubtful);
        }
    }

  private:
    QLabel* text_;
    QPushButton* remedy_;
    shoot::Level level_ = shoot::Level::info;
    bool safety_ = false;
};

NotesPanel::NotesPanel(Document& document, QWidget* parent) : QScrollArea(parent), document_(document) {
    setObjectName(QStringLiteral("notesPanel"));
    setAccessibleName(tr("Notes"));
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::NoFocus);
    sheet_ = new QWidget(this);
    layout_ = new QVBoxLayout(sheet_);
    layout_->setContentsMargins(0, 0, 2, 0);
    layout_->setSpacing(5);
    layout_->addStretch();
    setWidget(sheet_);
    viewport()->setAutoFillBackground(false);
    sheet_->setAutoFillBackground(false);
    connect(&document, &Document::shootChanged, this, &NotesPanel::refresh);
    connect(&document, &Document::selected, this, &NotesPanel::refresh);
    refresh();
}

int NotesPanel::wantedHeight() const {
    const int width = viewport()->width() - 2;
    int height = 0;
    for (const auto* card : cards_)
        if (!card->isHidden()) height += card->layout()->heightForWidth(width) + layout_->spacing();
    return height;
}

void NotesPanel::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    if (event->size().width() != event->oldSize().width()) Q_EMIT wantedHeightChanged();
}

void NotesPanel::refresh() {
    const auto* report = document_.report();
    const std::size_t count = report ? report->notes.size() : 0;
    while (cards_.size() < count) {
        const int place = static_cast<int>(cards_.size());
        auto* card = new NoteCard(sheet_);
        connect(card->remedy(), &QPushButton::clicked, this, [this, place] { apply(place); });
        layout_->insertWidget(place, card);
        cards_.push_back(card);
    }
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        cards_[i]->setVisible(i < count);
        if (i < count)
            cards_[i]->show(report->notes[i]);
        else
            cards_[i]->setObjectName({}), cards_[i]->remedy()->setObjectName({});
    }
    Q_EMIT wantedHeightChanged();
}

void NotesPanel::apply(int note) {
    const auto* report = document_.report();
    if (!report || note >= static_cast<int>(report->notes.size())) return;
    const auto remedy = report->notes[static_cast<std::size_t>(note)].remedy;
    if (remedy)
        document_.editShot({QString::fromStdString(remedy->label)}, [&](shoot::Shot& shot) { shot = remedy->shot; });
}

}  // namespace poquito::desk

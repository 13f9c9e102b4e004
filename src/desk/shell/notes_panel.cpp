#include "desk/shell/notes_panel.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"

#include <QPainter>
#include <QPushButton>
#include <QResizeEvent>

#include <algorithm>

namespace poquito::desk {

/// One note on its wash. The mark's shape says the level: a square stop, a triangle, a dot; a cross for safety.
class NoteCard : public QWidget {
  public:
    explicit NoteCard(QWidget* parent) : QWidget(parent), remedy_(new QPushButton(this)) {
        remedy_->setProperty("link", true);
    }

    /// Lays itself out by hand: wrapping labels in nested layouts take longer than a frame may.
    int layOut(int width) {
        textArea_ = QRect(30, 7, width - 40, 0);
        textArea_.setHeight(QFontMetrics(textFont())
                                .boundingRect(textArea_.adjusted(0, 0, 0, 10000), Qt::TextWordWrap, text_)
                                .height());
        int height = textArea_.bottom() + 8;
        if (remedy_->isHidden()) return height;
        const QSize wanted = remedy_->sizeHint();
        remedy_->setGeometry(29, textArea_.bottom() + 2, std::min(wanted.width(), width - 36), wanted.height());
        height = remedy_->geometry().bottom() + 5;
        return height;
    }

    QPushButton* remedy() const { return remedy_; }

    void show(const advice::Note& note) {
        level_ = note.level;
        safety_ = note.concern == advice::Concern::safety;
        const auto code = QString::fromStdString(note.code);
        setObjectName(QStringLiteral("note-") + code);
        text_ = QString::fromStdString(note.text);
        setAccessibleDescription(text_);
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
        const bool stop = level_ == advice::Level::stop, info = level_ == advice::Level::info;
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(Qt::NoPen);
        painter.setBrush(stop ? t.stopWash : info ? t.linkWash : t.cautionWash);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0, 0, 0, -1), 3, 3);
        painter.setFont(textFont());
        painter.setPen(t.ink);
        painter.drawText(textArea_, Qt::TextWordWrap, text_);
        painter.setPen(Qt::NoPen);
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
            drawStanding(painter, mark, advice::Standing::doubtful);
        }
    }

  private:
    QString text_;
    QRect textArea_;
    QPushButton* remedy_;
    advice::Level level_ = advice::Level::info;
    bool safety_ = false;
};

NotesPanel::NotesPanel(Document& document, QWidget* parent)
    : QScrollArea(parent), document_(document), sheet_(new QWidget) {
    setObjectName(QStringLiteral("notesPanel"));
    setAccessibleName(tr("Notes"));
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::NoFocus);
    setWidget(sheet_);
    viewport()->setAutoFillBackground(false);
    sheet_->setAutoFillBackground(false);
    connect(&document, &Document::shootChanged, this, &NotesPanel::refresh);
    connect(&document, &Document::selected, this, &NotesPanel::refresh);
    refresh();
}

void NotesPanel::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    if (event->size().width() != event->oldSize().width()) arrange();
}

void NotesPanel::refresh() {
    const auto* assessment = document_.assessment();
    const std::size_t count = assessment ? assessment->advice.notes.size() : 0;
    while (cards_.size() < count) {
        const int place = static_cast<int>(cards_.size());
        auto* card = new NoteCard(sheet_);
        connect(card->remedy(), &QPushButton::clicked, this, [this, place] { apply(place); });
        cards_.push_back(card);
    }
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        cards_[i]->setVisible(i < count);
        if (i < count) {
            cards_[i]->show(assessment->advice.notes[i]);
        } else {
            cards_[i]->setObjectName({});
            cards_[i]->remedy()->setObjectName({});
        }
    }
    arrange();
}

void NotesPanel::arrange() {
    constexpr int gap = 5;
    const int width = viewport()->width() - 2;
    int y = 0;
    for (auto* card : cards_) {
        if (card->isHidden()) continue;
        const int height = card->layOut(width);
        card->setGeometry(0, y, width, height);
        y += height + gap;
    }
    sheet_->resize(width, y);
    if (y == wantedHeight_) return;
    wantedHeight_ = y;
    Q_EMIT wantedHeightChanged();
}

void NotesPanel::apply(int note) {
    const auto* assessment = document_.assessment();
    if (!assessment || note >= static_cast<int>(assessment->advice.notes.size())) return;
    const auto remedy = assessment->advice.notes[static_cast<std::size_t>(note)].remedy;
    if (remedy)
        document_.editShot({QString::fromStdString(remedy->label)}, [&](shoot::Shot& shot) { shot = remedy->shot; });
}

}  // namespace poquito::desk

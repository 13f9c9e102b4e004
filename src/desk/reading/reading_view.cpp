#include "desk/reading/reading_view.hpp"

#include "desk/reading/page_drawing.hpp"
#include "desk/reading/word_tips.hpp"
#include "desk/session/document.hpp"
#include "desk/session/shipped_handbook.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/theme.hpp"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QScrollBar>
#include <QTextBrowser>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <functional>

namespace poquito::desk {
namespace {

constexpr std::size_t words_on_top = 2, words_below = 8;
constexpr int drawing_height = 196;

class DrawingOfPage : public QWidget {
  public:
    DrawingOfPage(const Document& document, std::function<handbook::Drawing()> drawing, QWidget* parent)
        : QWidget(parent), document_(document), drawing_(std::move(drawing)) {
        setFixedHeight(drawing_height);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        const auto* assessment = document_.assessment();
        if (!assessment) return;
        QPainter painter(this);
        drawPage(painter, QRectF(rect()).adjusted(2, 0, -2, -2), drawing_(), *assessment);
    }

  private:
    const Document& document_;
    std::function<handbook::Drawing()> drawing_;
};

QString paragraph(const QString& html) {
    return QStringLiteral("<p style=\"margin:0 0 7px 0;line-height:128%\">%1</p>").arg(html);
}

}  // namespace

ReadingView::ReadingView(const Document& document, QWidget* parent) : QFrame(parent), document_(document) {
    setObjectName(QStringLiteral("readingView"));
    setProperty("sheet", true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 8, 8);
    column->setSpacing(6);
    auto* top = new QHBoxLayout;
    title_ = new QLabel(this);
    title_->setObjectName(QStringLiteral("readingTitle"));
    title_->setFont(textFont(15, QFont::DemiBold));
    title_->setWordWrap(true);
    top->addWidget(title_, 1);
    auto* back = new QToolButton(this);
    back->setText(tr("Close"));
    nameControl(back, {"closeReadingButton", tr("Close"), tr("Back to the numbers; F1 or Escape")});
    back->setProperty("link", true);
    connect(back, &QToolButton::clicked, this, &ReadingView::leaveWanted);
    top->addWidget(back, 0, Qt::AlignTop);
    column->addLayout(top);
    here_ = new QLabel(this);
    here_->setObjectName(QStringLiteral("readingHere"));
    here_->setWordWrap(true);
    here_->setTextFormat(Qt::RichText);
    here_->setProperty("wash", true);
    here_->hide();
    column->addWidget(here_);
    drawing_ = new DrawingOfPage(
        document, [this] { return page_ ? page_->drawing : handbook::Drawing::none; }, this);
    column->addWidget(drawing_);
    text_ = new QTextBrowser(this);
    text_->setOpenLinks(false);
    text_->setFrameShape(QFrame::NoFrame);
    text_->setProperty("bare", true);
    text_->document()->setDocumentMargin(0);
    text_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    nameControl(text_, {"readingText", tr("Text of the page"), {}});
    connect(text_, &QTextBrowser::anchorClicked, this, [this](const QUrl& url) { follow(url.toString()); });
    column->addWidget(text_, 1);
    auto* all = new QToolButton(this);
    all->setText(tr("All of the handbook"));
    nameControl(
        all, {"allOfHandbookButton", tr("All of the handbook"), tr("In a window of its own, at this page; Shift+F1")});
    all->setProperty("link", true);
    connect(all, &QToolButton::clicked, this, [this] { Q_EMIT handbookWanted(page_ ? toQt(page_->id) : QString()); });
    column->addWidget(all, 0, Qt::AlignLeft);
}

void ReadingView::show(const handbook::Page& page) {
    page_ = &page;
    shown_.clear();
    refresh();
    text_->moveCursor(QTextCursor::Start);
    setVisible(true);
}

void ReadingView::refresh() {
    if (!page_) return;
    const auto& book = shippedHandbook();
    title_->setText(toQt(page_->title));
    drawing_->setVisible(page_->drawing != handbook::Drawing::none && document_.assessment());
    drawing_->setAccessibleName(tr("Drawing: %1").arg(toQt(page_->title)));
    drawing_->update();
    const auto* assessment = document_.assessment();
    const auto paragraphs =
        handbook::read(*page_, assessment ? workings::figures(*assessment) : std::vector<workings::Figure>());
    std::vector<const handbook::Word*> words;
    QString html;
    for (const auto& text : paragraphs) {
        html += paragraph(toQt(text).toHtmlEscaped());
        for (const auto* word : handbook::words_in(book, text))
            // What the page itself explains needs no line below it.
            if (word->page != page_->id && std::ranges::find(words, word) == words.end()) words.push_back(word);
    }
    QStringList see;
    for (const auto& id : page_->see)
        if (const auto* other = handbook::find_page(book, id))
            see << QStringLiteral("<a href=\"%1\">%2</a>").arg(toQt(id), toQt(other->title).toHtmlEscaped());
    if (!see.isEmpty()) html += paragraph(tr("Read on: %1").arg(see.join(QStringLiteral(", "))));
    if (!words.empty())
        html +=
            QStringLiteral("<p style=\"margin:10px 0 4px 0;font-weight:600\">%1</p>").arg(tr("Words")) +
            QStringLiteral("<div style=\"color:%1\">%2</div>").arg(theme().quiet.name(), explained(words, words_below));
    if (html == shown_) return;  // what is read does not move with every edit
    shown_ = html;
    const int at = text_->verticalScrollBar()->value();
    text_->document()->setDefaultFont(textFont(12));
    text_->document()->setDefaultStyleSheet(
        QStringLiteral("a { color: %1; text-decoration: none; }").arg(theme().link.name()));
    text_->setHtml(html);
    text_->verticalScrollBar()->setValue(at);
}

void ReadingView::explain(const QWidget* focused) {
    if (!focused || focused == this || isAncestorOf(focused)) return;  // what was explained stays while one reads
    const auto words = handbook::words_in(shippedHandbook(), WordTips::lettering(*focused, std::nullopt).toStdString());
    here_->setText(explained(words, words_on_top));
    here_->setVisible(!words.empty());
}

void ReadingView::follow(const QString& link) {
    if (const auto* page = handbook::find_page(shippedHandbook(), link.toStdString())) show(*page);
}

void ReadingView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) return Q_EMIT leaveWanted();
    QFrame::keyPressEvent(event);
}

void ReadingView::changeEvent(QEvent* event) {
    QFrame::changeEvent(event);
    if (event->type() != QEvent::PaletteChange || !page_) return;
    shown_.clear();
    refresh();
}

}  // namespace poquito::desk

#include "desk/reading/moc_reading_view.moc"

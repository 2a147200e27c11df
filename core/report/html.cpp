// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/overloaded.h"
#include "quantity/rounding.h"
#include "report/buildsheet.h"

namespace mildpath {
namespace {

constexpr std::string_view css = R"(
body { font-family: B612, "DejaVu Sans", sans-serif; font-size: 10pt; color: #1f2b33;
       max-width: 180mm; margin: 12mm auto; }
h1 { font-size: 18pt; margin: 0; }
h2 { font-size: 13pt; margin: 7mm 0 2mm; break-after: avoid; }
p { margin: 1.5mm 0; }
p.muted, td.muted, figcaption, .under { color: #55626a; }
p.state { font-weight: bold; }
figure { margin: 3mm 0; break-inside: avoid; }
figure svg { width: 100%; height: auto; }
figcaption b { color: #1f2b33; }
table { border-collapse: collapse; width: 100%; table-layout: fixed; margin: 2mm 0 4mm; }
thead { display: table-header-group; }
tr { break-inside: avoid; }
dl { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 1mm 5mm; margin: 3mm 0;
     border-top: 0.4mm solid #55626a; border-bottom: 0.2mm solid #c9c5b8; padding: 2mm 0; }
dl div { display: flex; gap: 2mm; }
dt { color: #55626a; min-width: 24mm; }
dd { margin: 0; font-weight: bold; }
.sign { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 6mm; margin: 4mm 0; break-inside: avoid; }
.sign p { color: #55626a; }
.sign .name { border-top: 0.4mm solid #55626a; margin-top: 12mm; padding-top: 1mm; color: #1f2b33; }
p.line { border-bottom: 0.2mm solid #c9c5b8; height: 7mm; margin: 0; }
th { text-align: left; font-weight: normal; color: #55626a; border-bottom: 0.4mm solid #55626a; }
th, td { padding: 1mm 1.5mm 1mm 0; vertical-align: top; overflow-wrap: anywhere; }
td { border-bottom: 0.2mm solid #c9c5b8; }
td svg, p.state svg { width: 3mm; height: 3mm; margin-right: 1.2mm; vertical-align: -0.3mm; }
)";

std::string markSvg(Mark mark)
{
    Svg svg(12, 12);
    svg.mark({ 6, 6 }, 11, mark);
    return svg.text();
}

/// A mark is a picture; who cannot see it hears its word.
std::string marked(Mark mark, const std::string &text)
{
    return "<span role=\"img\" aria-label=\"" + std::string(markWord(mark)) + "\">" + markSvg(mark)
        + "</span>" + xmlText(text);
}

std::string tableHtml(const SheetTable &t, const UnitStyle &style)
{
    std::string out = "<table>\n<colgroup>";
    for (const double w : t.widths)
        out += "<col style=\"width:" + formatPlain(100 * w, 1) + "%\">";
    out += "</colgroup>\n<thead><tr>";
    for (const Phrase &h : t.head)
        out += "<th>" + xmlText(render(h, style)) + "</th>";
    out += "</tr></thead>\n<tbody>\n";
    for (const auto &row : t.rows) {
        out += "<tr>";
        for (const SheetCell &c : row) {
            const std::string text = render(c.text, style);
            out += "<td>" + (c.mark ? marked(*c.mark, text) : xmlText(text)) + "</td>";
        }
        out += "</tr>\n";
    }
    return out + "</tbody></table>\n";
}

std::string factsHtml(const SheetFacts &facts, const UnitStyle &style)
{
    std::string out = "<dl>\n";
    for (const auto &[label, value] : facts.facts)
        out += "<div><dt>" + xmlText(render(label, style)) + "</dt><dd>"
            + xmlText(render(value, style)) + "</dd></div>\n";
    return out + "</dl>\n";
}

std::string signaturesHtml(const SheetSignatures &signatures, const UnitStyle &style)
{
    std::string out = "<div class=\"sign\">\n";
    for (const SheetSignatures::Slot &s : signatures.lines)
        out += "<div><p>" + xmlText(render(s.what, style)) + "</p><p class=\"name\">"
            + xmlText(s.name.empty() ? "name" : s.name) + "</p></div>\n";
    return out + "</div>\n";
}

std::string blockHtml(const SheetBlock &block, const UnitStyle &style)
{
    return std::visit(Overloaded {
                          [&](const SheetHeading &h) {
                              return "<h2>" + xmlText(render(h.text, style)) + "</h2>\n";
                          },
                          [&](const SheetText &t) {
                              return std::string(t.muted ? "<p class=\"muted\">" : "<p>")
                                  + xmlText(render(t.text, style)) + "</p>\n";
                          },
                          [&](const SheetTable &t) { return tableHtml(t, style); },
                          [&](const SheetFacts &f) { return factsHtml(f, style); },
                          [&](const SheetSignatures &g) { return signaturesHtml(g, style); },
                          [](const SheetNotes &) {
                              std::string out = "<h2>Notes</h2>\n";
                              for (int i = 0; i < 4; ++i)
                                  out += "<p class=\"line\"></p>\n";
                              return out;
                          },
                          [](const SheetPicture &p) {
                              return "<figure role=\"img\" aria-label=\"" + xmlText(p.title)
                                  + "\"><figcaption><b>" + xmlText(p.title) + "</b> "
                                  + xmlText(p.note) + "</figcaption>\n" + p.svg + "</figure>\n";
                          },
                      },
                      block);
}

} // namespace

std::string sheetToHtml(const BuildSheet &sheet, Paper paper)
{
    std::string out = "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\">\n<title>"
        + xmlText(sheet.title) + "</title>\n<style>\n@page { size: "
        + (paper == Paper::A4 ? "A4" : "letter") + "; margin: 15mm; }" + std::string(css)
        + "</style></head>\n<body>\n<h1>" + xmlText(sheet.title) + "</h1>\n<p class=\"under\">";
    for (size_t i = 0; i < sheet.under.size(); ++i)
        out += (i > 0 ? " · " : "") + xmlText(render(sheet.under[i], sheet.style));
    out += "</p>\n<p class=\"state\">" + marked(sheet.mark, render(sheet.state, sheet.style))
        + "</p>\n";
    for (const SheetBlock &b : sheet.blocks)
        out += blockHtml(b, sheet.style);
    if (!sheet.foot.empty())
        out += "<p class=\"muted\">" + xmlText(render(sheet.foot, sheet.style)) + "</p>\n";
    return out + "</body></html>\n";
}

} // namespace mildpath

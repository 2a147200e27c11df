// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/svg.h"

#include "quantity/rounding.h"

namespace mildpath {
namespace {

std::string n(double v)
{
    return formatPlain(v, 2);
}

std::string pointList(const std::vector<Svg::Point> &points)
{
    std::string out;
    for (const Svg::Point &p : points)
        out += (out.empty() ? "" : " ") + n(p.x) + "," + n(p.y);
    return out;
}

std::string attribute(std::string_view name, std::string_view value)
{
    return " " + std::string(name) + "=\"" + std::string(value) + "\"";
}

} // namespace

std::string xmlText(std::string_view text)
{
    std::string out;
    for (const char c : text)
        switch (c) {
        case '&':
            out += "&amp;";
            break;
        case '<':
            out += "&lt;";
            break;
        case '>':
            out += "&gt;";
            break;
        case '"':
            out += "&quot;";
            break;
        case '\'':
            out += "&#39;";
            break;
        default:
            // Control characters are not allowed in XML at all.
            if (static_cast<unsigned char>(c) >= 0x20 || c == '\n' || c == '\t')
                out += c;
        }
    return out;
}

std::string_view markColour(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return Svg::proven;
    case Mark::LookAgain:
        return Svg::lookAgain;
    case Mark::Hold:
        return Svg::hold;
    case Mark::Assumed:
        return Svg::proven;
    case Mark::SignedOff:
    case Mark::NotAsked:
    case Mark::NotDone:
        return Svg::muted;
    }
    return Svg::muted;
}

void Svg::line(Point a, Point b, std::string_view colour, double width, std::string_view dashes)
{
    m_body += "<line" + attribute("x1", n(a.x)) + attribute("y1", n(a.y)) + attribute("x2", n(b.x))
        + attribute("y2", n(b.y)) + attribute("stroke", colour)
        + attribute("stroke-width", n(width))
        + (dashes.empty() ? "" : attribute("stroke-dasharray", dashes)) + "/>\n";
}

void Svg::polyline(const std::vector<Point> &points, std::string_view colour, double width)
{
    m_body += "<polyline" + attribute("points", pointList(points)) + attribute("fill", "none")
        + attribute("stroke", colour) + attribute("stroke-width", n(width))
        + attribute("stroke-linejoin", "round") + "/>\n";
}

void Svg::area(const std::vector<Point> &points, std::string_view colour)
{
    m_body += "<polygon" + attribute("points", pointList(points)) + attribute("fill", colour)
        + attribute("stroke", "none") + "/>\n";
}

void Svg::rect(Point at, double width, double height, std::string_view colour)
{
    m_body += "<rect" + attribute("x", n(at.x)) + attribute("y", n(at.y))
        + attribute("width", n(width)) + attribute("height", n(height)) + attribute("fill", colour)
        + "/>\n";
}

void Svg::circle(Point c, double radius, std::string_view fill, std::string_view stroke)
{
    m_body += "<circle" + attribute("cx", n(c.x)) + attribute("cy", n(c.y))
        + attribute("r", n(radius)) + attribute("fill", fill)
        + (stroke.empty() ? "" : attribute("stroke", stroke)) + "/>\n";
}

void Svg::text(Point at, std::string_view words, double size, std::string_view colour,
               Anchor anchor, bool bold)
{
    m_body += "<text" + attribute("x", n(at.x)) + attribute("y", n(at.y))
        + attribute("font-family", "B612, sans-serif") + attribute("font-size", n(size))
        + attribute("fill", colour)
        + (anchor == Anchor::Start
               ? ""
               : attribute("text-anchor", anchor == Anchor::Middle ? "middle" : "end"))
        + (bold ? attribute("font-weight", "bold") : "") + ">" + xmlText(words) + "</text>\n";
}

/// Shape first, colour second: disc with tick, diamond, square with bar, ring.
void Svg::mark(Point c, double size, Mark mark)
{
    const double r = size / 2;
    const std::string_view colour = markColour(mark);
    switch (mark) {
    case Mark::Proven:
        circle(c, r, colour);
        polyline({ { c.x - 0.5 * r, c.y },
                   { c.x - 0.1 * r, c.y + 0.4 * r },
                   { c.x + 0.5 * r, c.y - 0.4 * r } },
                 "#ffffff", size / 8);
        break;
    case Mark::LookAgain:
        area({ { c.x, c.y - r }, { c.x + r, c.y }, { c.x, c.y + r }, { c.x - r, c.y } }, colour);
        break;
    case Mark::Hold:
        rect({ c.x - 0.9 * r, c.y - 0.9 * r }, 1.8 * r, 1.8 * r, colour);
        line({ c.x - 0.5 * r, c.y }, { c.x + 0.5 * r, c.y }, "#ffffff", size / 6);
        break;
    case Mark::NotDone:
        circle(c, r - 0.6, "none", colour);
        break;
    case Mark::SignedOff: // a ring struck through
        circle(c, r - 0.6, "none", colour);
        line({ c.x - 0.7 * r, c.y + 0.7 * r }, { c.x + 0.7 * r, c.y - 0.7 * r }, colour, size / 8);
        break;
    case Mark::NotAsked:
        line({ c.x - 0.5 * r, c.y }, { c.x + 0.5 * r, c.y }, colour, size / 8);
        break;
    case Mark::Assumed: // the tick's ring, hollow
        circle(c, r - 0.6, "none", colour);
        circle(c, 0.3 * r, colour);
        break;
    }
}

std::string Svg::text() const
{
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" version=\"1.2\" baseProfile=\"tiny\""
        + attribute("width", n(m_width)) + attribute("height", n(m_height))
        + attribute("viewBox", "0 0 " + n(m_width) + " " + n(m_height)) + ">\n" + m_body
        + "</svg>\n";
}

} // namespace mildpath

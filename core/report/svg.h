// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"

#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace mildpath {

/// A picture for print, in SVG Tiny 1.2: lines, areas, words; nothing a plain renderer does not
/// know.
class Svg
{
public:
    /// @param width, height  px at 96 to the inch
    Svg(double width, double height)
        : m_width(width)
        , m_height(height)
    {
    }
    enum class Anchor { Start, Middle, End };
    struct Point
    {
        double x, y;
    };

    void line(Point a, Point b, std::string_view colour, double width = 1,
              std::string_view dashes = {});
    void polyline(const std::vector<Point> &points, std::string_view colour, double width = 1.4);
    void area(const std::vector<Point> &points, std::string_view colour);
    void rect(Point at, double width, double height, std::string_view colour);
    void circle(Point centre, double radius, std::string_view fill, std::string_view stroke = {});
    void text(Point at, std::string_view text, double size = 11, std::string_view colour = ink,
              Anchor anchor = Anchor::Start, bool bold = false);
    void mark(Point centre, double size, Mark mark);

    double width() const { return m_width; }
    double height() const { return m_height; }
    /// The whole picture, as a document of its own.
    std::string text() const;

    static constexpr std::string_view ink = "#1f2b33", muted = "#55626a", hairline = "#c9c5b8",
                                      selection = "#245b86", proven = "#2c6b57",
                                      lookAgain = "#a86a0b", hold = "#9e2f28", band = "#ecdcba",
                                      inside = "#e3ece7", oil = "#a26a22";

private:
    double m_width, m_height;
    std::string m_body;
};

/// Text with the five characters of XML that must not stand by themselves written out.
std::string xmlText(std::string_view text);
/// Colour of a mark on paper.
std::string_view markColour(Mark mark);

/// A picture with its title, for a sheet.
struct SheetPicture
{
    std::string title, note;
    double width = 0, height = 0; ///< px
    std::string svg;
};
inline SheetPicture picture(std::string title, std::string note, const Svg &svg)
{
    return { std::move(title), std::move(note), svg.width(), svg.height(), svg.text() };
}

} // namespace mildpath

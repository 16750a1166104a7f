<?php

declare(strict_types=1);

namespace App\Export;

/**
 * Pages of a report: headings, sentences, tables whose rows go to the file as they come, so that a table of twenty thousand
 * rows is as easy as one of ten. Points, A4; the typeface is embedded with the letters used, so names of any script stand.
 */
final class ReportPages extends \TCPDF
{
    /** Points. */
    private const FIGURES = 8.0;
    private const SMALL = 7.5;

    public const INK = [0, 0, 0];
    public const QUIET = [108, 106, 94];
    public const BAD = [200, 65, 43];
    public const GOOD = [31, 111, 107];
    public const BLUE = [42, 91, 215];
    public const GREY = [120, 129, 140];
    private const RULE = [221, 214, 196];
    private const MARGIN = 40.0;
    private const ROW = 11.0;
    private const FOOT = 46.0;
    private const NOTE = 9.5;
    private const INDENT = 20.0;
    private const TYPEFACE = 'dejavusanscondensed';

    private readonly HtmlPages $twin;

    /** @var array{list<int>, float, string} colour, width and dashes of lines */
    private array $ink = [self::INK, 0.6, ''];

    /** @var array{list<int>, float} colour and size of words */
    private array $letters = [self::INK, 9.0];

    /** @var list<array{string, float, string}> heading, width, alignment of the table that is open */
    private array $table = [];

    public function __construct(private readonly string $name)
    {
        $this->twin = new HtmlPages();
        parent::__construct('P', 'pt', 'A4');
        $this->setPrintHeader(false);
        $this->tcpdflink = false;
        $this->setCellPaddings(0.0, 0.0, 0.0, 0.0);
        $this->setMargins(self::MARGIN, self::MARGIN);
        $this->setAutoPageBreak(true, self::FOOT);
        $this->setTitle($name);
        $this->setFont(self::TYPEFACE);
        $this->AddPage();
    }

    // phpcs:ignore -- the library calls it by this name
    public function Footer(): void
    {
        $this->setY(-30.0);
        $this->pen(self::QUIET, '', self::SMALL);
        $this->Cell(0.0, 10.0, $this->name);
        // The count of pages is put in at the end: its place is measured from the left.
        $this->setX($this->getPageWidth() - self::MARGIN - 28.0);
        $this->Cell(28.0, 10.0, $this->getAliasNumPage().' / '.$this->getAliasNbPages());
    }

    /**
     * At the head of the first page, before anything else.
     *
     * @param list<string> $company lines
     */
    public function letterhead(array $company, string $checked): void
    {
        foreach ($company as $i => $line) {
            $this->sentence($line, self::INK, 0 === $i ? 'B' : '', 0 === $i ? 10.0 : 8.0);
        }
        if ([] !== $company) {
            $this->rule(self::GREY, 0.6);
            $this->Ln(6.0);
        }
        if ('' !== $checked) {
            $this->sentence($checked, self::GOOD, 'B');
        }
    }

    public function html(): string
    {
        return $this->twin->html($this->name);
    }

    /** Rows of all its tables. */
    public function rows(): int
    {
        return $this->twin->rows();
    }

    public function heading(string $text): void
    {
        $this->twin->heading($text);
        $this->Ln(8.0);
        $this->pen(self::INK, 'B', 11.0);
        $this->Cell(0.0, 15.0, $text, 0, 1);
        $this->rule(self::GREY, 0.6);
        $this->Ln(3.0);
    }

    /** @param list<int> $colour */
    public function sentence(string $text, array $colour = self::INK, string $style = '', float $size = 9.0): void
    {
        $this->twin->sentence($text, $colour, $style, $size);
        $this->pen($colour, $style, $size);
        $this->MultiCell(0.0, 1.35 * $size, $text, 0, 'L');
    }

    /** @param list<array{string, float, string}> $columns heading, width in points, "L" or "R" */
    public function beginTable(array $columns): void
    {
        $this->twin->beginTable($columns);
        $this->table = $columns;
        $this->head();
    }

    /**
     * @param list<string> $cells
     * @param string       $note  what belongs to the row and is longer than a column; in full, below it, never on the next page
     */
    public function row(array $cells, bool $stands = false, string $note = ''): void
    {
        $this->twin->row($cells, $stands, $note);
        $below = '' === $note ? 0.0 : self::NOTE * $this->getNumLines($note, $this->getPageWidth() - 2.0 * self::MARGIN - self::INDENT);
        if ($this->GetY() + self::ROW + $below > $this->GetPageHeight() - self::FOOT) {
            $this->AddPage();
            $this->head();
        }
        foreach ($this->table as $i => [, $width, $align]) {
            $this->pen($stands ? self::BAD : self::INK, '', self::FIGURES);
            // A figure is never cut off: where it is too long for its column it is set smaller.
            $needed = 'R' === $align ? $this->GetStringWidth($cells[$i]) : 0.0;
            if ($needed > $width - 2.0) {
                $this->pen($stands ? self::BAD : self::INK, '', self::FIGURES * ($width - 2.0) / $needed);
            }
            $this->Cell($width, self::ROW, 'R' === $align ? $cells[$i] : $this->fitted($cells[$i], $width), 0, 0, $align);
        }
        $this->Ln(self::ROW);
        if ('' !== $note) {
            $this->pen(self::QUIET, '', self::SMALL);
            $this->setX(self::MARGIN + self::INDENT);
            $this->MultiCell(0.0, self::NOTE, $note, 0, 'L');
        }
        $this->rule(self::RULE, 0.3);
    }

    private function head(): void
    {
        $this->pen(self::QUIET, '', self::SMALL);
        foreach ($this->table as [$heading, $width, $align]) {
            $this->Cell($width, self::ROW, $heading, 0, 0, $align);
        }
        $this->Ln(self::ROW);
        $this->rule(self::INK, 0.8);
    }

    /** A cell never runs into the next. */
    private function fitted(string $text, float $width): string
    {
        if (mb_strlen($text) < 8 || $this->GetStringWidth($text) <= $width - 3.0) {
            return $text;
        }
        while ('' !== $text && $this->GetStringWidth($text.'...') > $width - 3.0) {
            $text = mb_substr($text, 0, -1);
        }

        return $text.'...';
    }

    /** @param list<int> $colour */
    private function rule(array $colour, float $width): void
    {
        $this->setDrawColor(...$colour);
        $this->setLineWidth($width);
        $this->Line(self::MARGIN, $this->GetY(), $this->GetPageWidth() - self::MARGIN, $this->GetY());
    }

    /** @param list<int> $colour */
    public function pen(array $colour, string $style, float $size): void
    {
        $this->letters = [$colour, $size];
        $this->setTextColor(...$colour);
        $this->setFont(self::TYPEFACE, $style, $size);
    }

    /**
     * How lines of a drawing are drawn from here on.
     *
     * @param list<int> $colour
     * @param string    $dash   lengths, as "4,2"; empty for none
     */
    public function ink(array $colour, float $width, string $dash = ''): void
    {
        $this->ink = [$colour, $width, $dash];
        $this->setLineStyle(['width' => $width, 'color' => $colour, 'dash' => '' === $dash ? 0 : $dash]);
    }

    /** @param list<float> $points x, y, x, y ... of at least two places */
    public function path(array $points): void
    {
        $this->twin->path($points, ...$this->ink);
        4 === \count($points) ? $this->Line(...$points) : $this->PolyLine($points);
    }

    /** @param list<int> $fill */
    public function box(float $x, float $y, float $width, float $height, array $fill): void
    {
        $this->twin->box($x, $y, $width, $height, $fill, $this->ink[0]);
        $this->setFillColor(...$fill);
        $this->Rect($x, $y, $width, $height, 'DF');
    }

    public function picture(string $png, float $x, float $y, float $width, float $height): void
    {
        $this->twin->image($png, $x, $y, $width, $height);
        $this->Image('@'.$png, $x, $y, $width, $height, 'PNG');
    }

    /** A word in a drawing, its baseline given. */
    public function word(float $x, float $baseline, string $text): void
    {
        $this->twin->word($x, $baseline, $text, $this->letters[1], $this->letters[0]);
        $back = [$this->GetX(), $this->GetY()];
        $this->setXY($x, $baseline - $this->getFontAscent(self::TYPEFACE, '', $this->getFontSizePt()));
        $this->Cell(0.0, 0.0, $text);
        $this->setXY(...$back);
    }

    /** Room for a drawing of the page's width; its upper edge. */
    public function room(float $height): float
    {
        if ($this->GetY() + $height > $this->GetPageHeight() - self::FOOT) {
            $this->AddPage();
        }
        $top = $this->GetY();
        $this->twin->beginPicture($top, $this->getPageWidth(), $height);
        $this->setY($top + $height);

        return $top;
    }
}

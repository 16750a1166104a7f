<?php

declare(strict_types=1);

namespace App\Network\Report;

/**
 * Pages of a report: headings, sentences, tables whose rows go to the file as they come, so that a table of twenty thousand
 * rows is as easy as one of ten. Points, A4; text in the Windows-1252 set of the PDF standard fonts.
 */
final class ReportPages extends \FPDF
{
    public const INK = [31, 42, 55];
    public const QUIET = [108, 106, 94];
    public const BAD = [200, 65, 43];
    public const GOOD = [31, 111, 107];
    public const BLUE = [42, 91, 215];
    public const GREY = [120, 129, 140];
    private const RULE = [221, 214, 196];
    private const MARGIN = 40.0;
    private const ROW = 11.0;
    private const FOOT = 46.0;

    /** @var list<array{string, float, string}> heading, width, alignment of the table that is open */
    private array $columns = [];

    public function __construct(private readonly string $title)
    {
        parent::__construct('P', 'pt', 'A4');
        $this->SetMargins(self::MARGIN, self::MARGIN);
        $this->SetAutoPageBreak(true, self::FOOT);
        $this->SetTitle(self::ansi($title), false);
        $this->AliasNbPages();
        $this->AddPage();
    }

    /** What the standard fonts hold; other letters become those nearest to them. */
    public static function ansi(string $utf8): string
    {
        $utf8 = strtr($utf8, ['→' => '->', '−' => '-', '″' => '"', '′' => "'", '≥' => '>=', '≤' => '<=']);

        return (string) iconv('UTF-8', 'Windows-1252//TRANSLIT//IGNORE', $utf8);
    }

    // phpcs:ignore -- the library calls it by this name
    public function Footer(): void
    {
        $this->SetY(-30.0);
        $this->pen(self::QUIET, '', 7.0);
        $this->Cell(0.0, 10.0, self::ansi($this->title));
        $this->SetX(self::MARGIN);
        $this->Cell(0.0, 10.0, $this->PageNo().' / {nb}', 0, 0, 'R');
    }

    public function heading(string $text): void
    {
        $this->Ln(8.0);
        $this->pen(self::INK, 'B', 11.0);
        $this->Cell(0.0, 15.0, self::ansi($text), 0, 1);
        $this->rule(self::GREY, 0.6);
        $this->Ln(3.0);
    }

    /** @param list<int> $colour */
    public function sentence(string $text, array $colour = self::INK, string $style = '', float $size = 8.5): void
    {
        $this->pen($colour, $style, $size);
        $this->MultiCell(0.0, 1.35 * $size, self::ansi($text));
    }

    /** @param list<array{string, float, string}> $columns heading, width in points, "L" or "R" */
    public function beginTable(array $columns): void
    {
        $this->columns = $columns;
        $this->head();
    }

    /** @param list<string> $cells */
    public function row(array $cells, bool $stands = false): void
    {
        if ($this->GetY() + self::ROW > $this->GetPageHeight() - self::FOOT) {
            $this->AddPage();
            $this->head();
        }
        $this->pen($stands ? self::BAD : self::INK, '', 7.5);
        foreach ($this->columns as $i => [, $width, $align]) {
            $this->Cell($width, self::ROW, $this->fitted(self::ansi($cells[$i]), $width), 0, 0, $align);
        }
        $this->Ln(self::ROW);
        $this->rule(self::RULE, 0.3);
    }

    private function head(): void
    {
        $this->pen(self::QUIET, '', 7.0);
        foreach ($this->columns as [$heading, $width, $align]) {
            $this->Cell($width, self::ROW, self::ansi($heading), 0, 0, $align);
        }
        $this->Ln(self::ROW);
        $this->rule(self::INK, 0.8);
    }

    /** A cell never runs into the next. */
    private function fitted(string $text, float $width): string
    {
        if (\strlen($text) < 8 || $this->GetStringWidth($text) <= $width - 3.0) {
            return $text;
        }
        while ('' !== $text && $this->GetStringWidth($text.'...') > $width - 3.0) {
            $text = substr($text, 0, -1);
        }

        return $text.'...';
    }

    /** @param list<int> $colour */
    private function rule(array $colour, float $width): void
    {
        $this->SetDrawColor(...$colour);
        $this->SetLineWidth($width);
        $this->Line(self::MARGIN, $this->GetY(), $this->GetPageWidth() - self::MARGIN, $this->GetY());
    }

    /** @param list<int> $colour */
    public function pen(array $colour, string $style, float $size): void
    {
        $this->SetTextColor(...$colour);
        $this->SetFont('Helvetica', $style, $size);
    }

    /** Room for a drawing of the page's width; its upper edge. */
    public function room(float $height): float
    {
        if ($this->GetY() + $height > $this->GetPageHeight() - self::FOOT) {
            $this->AddPage();
        }
        $top = $this->GetY();
        $this->SetY($top + $height);

        return $top;
    }
}

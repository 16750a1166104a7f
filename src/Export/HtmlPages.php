<?php

declare(strict_types=1);

namespace App\Export;

/** A report as one HTML file: what {@see ReportPages} writes on its pages, in the same order; pictures as SVG. Points. */
final class HtmlPages
{
    private const STYLE = 'body{font:14px/1.5 sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#000}'
        .'table{border-collapse:collapse;width:100%;margin:.5rem 0}'
        .'th{color:#6c6a5e;font-weight:normal;text-align:left;border-bottom:2px solid}'
        .'td,th{padding:.15rem .6rem .15rem 0}tr+tr td{border-top:1px solid #ddd6c4}.n{text-align:right;font-variant-numeric:tabular-nums}'
        .'.note td{color:#6c6a5e;padding-left:1.5rem}svg{width:100%;height:auto}p{margin:.3rem 0}';

    private string $body = '';
    private bool $hasPicture = false;

    /** @var list<string> alignment of the columns of the table that is open; empty where none is */
    private array $table = [];
    private int $rows = 0;

    /** @param list<int> $colour */
    public function sentence(string $text, array $colour, string $style, float $size): void
    {
        $this->close();
        $bold = str_contains($style, 'B') ? ';font-weight:bold' : '';
        $css = \sprintf('color:%s;font-size:%.2Fem%s', self::css($colour), $size / 9.0, $bold);
        $this->body .= "<p style=\"$css\">".self::plain($text)."</p>\n";
    }

    public function heading(string $text): void
    {
        $this->close();
        $this->body .= '<h2>'.self::plain($text)."</h2>\n";
    }

    /** @param list<array{string, float, string}> $columns */
    public function beginTable(array $columns): void
    {
        $this->close();
        $this->table = array_column($columns, 2);
        $this->body .= '<table><tr>';
        foreach ($columns as [$heading, , $align]) {
            $this->body .= '<th'.('R' === $align ? ' class="n"' : '').'>'.self::plain($heading).'</th>';
        }
        $this->body .= "</tr>\n";
    }

    /** @param list<string> $cells */
    public function row(array $cells, bool $stands, string $note): void
    {
        ++$this->rows;
        $this->body .= $stands ? '<tr style="color:'.self::css(ReportPages::BAD).'">' : '<tr>';
        foreach ($cells as $i => $cell) {
            $this->body .= '<td'.('R' === ($this->table[$i] ?? 'L') ? ' class="n"' : '').'>'.self::plain($cell).'</td>';
        }
        $this->body .= "</tr>\n";
        if ('' !== $note) {
            $this->body .= '<tr class="note"><td colspan="'.\count($cells).'">'.self::plain($note)."</td></tr>\n";
        }
    }

    public function beginPicture(float $top, float $width, float $height): void
    {
        $this->close();
        $this->hasPicture = true;
        $this->body .= \sprintf('<svg role="img" viewBox="0 %.1F %.1F %.1F">', $top, $width, $height)."\n";
    }

    /**
     * @param list<float> $points x, y, x, y ...
     * @param list<int>   $colour
     */
    public function path(array $points, array $colour, float $width, string $dash): void
    {
        if ($this->hasPicture) {
            $pair = static fn (array $p): string => \sprintf('%.2F,%.2F', $p[0], $p[1] ?? 0.0);
            $pairs = implode(' ', array_map($pair, array_chunk($points, 2)));
            $this->body .= \sprintf(
                '<polyline fill="none" stroke="%s" stroke-width="%.2F"%s points="%s"/>', self::css($colour), $width,
                '' === $dash ? '' : ' stroke-dasharray="'.self::plain($dash).'"', $pairs,
            )."\n";
        }
    }

    /**
     * @param list<int> $fill
     * @param list<int> $edge
     */
    public function box(float $x, float $y, float $width, float $height, array $fill, array $edge): void
    {
        if ($this->hasPicture) {
            $this->body .= \sprintf(
                '<rect x="%.2F" y="%.2F" width="%.2F" height="%.2F" fill="%s" stroke="%s" stroke-width="0.3"/>', $x, $y, $width, $height,
                self::css($fill), self::css($edge),
            )."\n";
        }
    }

    /** @param list<int> $colour */
    public function word(float $x, float $baseline, string $text, float $size, array $colour): void
    {
        if ($this->hasPicture && '' !== $text) {
            $this->body .= \sprintf('<text x="%.2F" y="%.2F" font-size="%.1F" fill="%s">', $x, $baseline, $size, self::css($colour))
                .self::plain($text)."</text>\n";
        }
    }

    public function image(string $png, float $x, float $y, float $width, float $height): void
    {
        if ($this->hasPicture) {
            $place = \sprintf('x="%.2F" y="%.2F" width="%.2F" height="%.2F"', $x, $y, $width, $height);
            $this->body .= "<image $place href=\"data:image/png;base64,".base64_encode($png)."\"/>\n";
        }
    }

    /** Rows of all tables. */
    public function rows(): int
    {
        return $this->rows;
    }

    public function html(string $title): string
    {
        $this->close();

        return "<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>".self::plain($title).'</title><style>'
            .self::STYLE."</style></head><body>\n".$this->body."</body></html>\n";
    }

    private function close(): void
    {
        $this->body .= [] === $this->table ? '' : "</table>\n";
        $this->body .= $this->hasPicture ? "</svg>\n" : '';
        [$this->table, $this->hasPicture] = [[], false];
    }

    private static function plain(string $text): string
    {
        return htmlspecialchars($text, \ENT_QUOTES | \ENT_SUBSTITUTE, 'UTF-8');
    }

    /** @param list<int> $colour */
    private static function css(array $colour): string
    {
        return \sprintf('#%02x%02x%02x', $colour[0] ?? 0, $colour[1] ?? 0, $colour[2] ?? 0);
    }
}

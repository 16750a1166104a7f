<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Quantity\Unit;

/** A heading taken apart: its word, and the unit that stands with it. */
final readonly class Heading
{
    private const FOLDED = [
        'ä' => 'ae', 'ö' => 'oe', 'ü' => 'ue', 'ß' => 'ss', 'Ä' => 'ae', 'Ö' => 'oe', 'Ü' => 'ue',
        'á' => 'a', 'à' => 'a', 'â' => 'a', 'ã' => 'a', 'å' => 'a', 'é' => 'e', 'è' => 'e', 'ê' => 'e', 'ë' => 'e',
        'í' => 'i', 'ì' => 'i', 'î' => 'i', 'ó' => 'o', 'ò' => 'o', 'ô' => 'o', 'õ' => 'o', 'ø' => 'o',
        'ú' => 'u', 'ù' => 'u', 'û' => 'u', 'ñ' => 'n', 'ç' => 'c', 'É' => 'e', 'È' => 'e', 'Á' => 'a',
    ];

    /** @param string $word lower case, letters and digits only, without accents */
    private function __construct(public string $word, public ?Unit $unit)
    {
    }

    /** The unit stands in brackets, behind a slash, an underscore or a blank: "easting [m]", "Hz/gon", "sd_e_mm", "height m". */
    public static function of(string $text): self
    {
        $unit = null;
        if (1 === preg_match('/^(.*?)\s*[\[(]([^\])]+)[\])]\s*$/u', $text, $match)) {
            $unit = Unit::fromHeader($match[2]);
            $text = $match[1];
        } elseif (1 === preg_match('~^(.+?)(?:\s*[_/]\s*|\s+)(m|mm|cm|ft|ftus|deg|dms|gon|grad|m2|mm2)$~i', $text, $match)) {
            $unit = Unit::fromHeader($match[2]);
            $text = $match[1];
        }

        return new self(preg_replace('/[^a-z0-9]/', '', strtolower(strtr($text, self::FOLDED))) ?? '', $unit);
    }

    /**
     * What the headings of a file are, whatever they are spelled like: what a mapping is remembered by.
     *
     * @param list<string> $headings
     */
    public static function shape(array $headings): string
    {
        $parts = array_map(static function (string $text): string {
            $heading = self::of($text);

            return $heading->word.(null === $heading->unit ? '' : '/'.$heading->unit->value);
        }, $headings);

        return hash('sha256', implode('|', $parts));
    }
}

<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/** A coordinate system from whatever names or defines it: a code, well-known text or a PROJ string. */
final readonly class SystemReader
{
    public function __construct(private Registry $registry)
    {
    }

    /**
     * @throws UnreadableSystem
     * @throws UnknownSystem
     * @throws UnsupportedMethod
     */
    public function read(string $text): CoordinateSystem
    {
        $text = trim(str_replace("\u{FEFF}", '', $text));
        if (1 === preg_match('/^EPSG:/i', $text)) {
            return $this->registry->system($text);
        }
        if (str_contains($text, '+proj=') || str_contains($text, '+init=') || str_starts_with($text, 'proj=')) {
            return (new ProjStringReader($this->registry))->read($text);
        }
        if (1 === preg_match('/^[A-Za-z_]+\s*[\[(]/', $text)) {
            return (new WktReader($this->registry))->read($text);
        }

        throw new UnreadableSystem('the text is neither a code such as EPSG:25830, nor WKT2, nor a PROJ string');
    }
}

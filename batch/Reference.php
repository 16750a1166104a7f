<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\SystemReader;
use Mensura\Reference\Text\UnreadableSystem;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/** Where the batch verbs find the registry, and how they read a coordinate system from the command line. */
final class Reference
{
    public static function registry(): Registry
    {
        try {
            return Registry::open();
        } catch (UnknownSystem $e) {
            throw new UnusableInput('', $e->getMessage());
        }
    }

    /** A code, or the path of a file holding WKT2 or a PROJ string. */
    public static function system(Registry $registry, string $option, string $text): CoordinateSystem
    {
        $isCode = 1 === preg_match('/^EPSG:/i', $text);
        if (!$isCode && (is_dir($text) || !file_exists($text))) {
            throw new UnusableInput($option, \sprintf('"%s" is neither a code such as EPSG:25830 nor a file', $text));
        }
        try {
            return (new SystemReader($registry))->read($isCode ? $text : Input::contents($text));
        } catch (UnreadableSystem|UnknownSystem|UnsupportedMethod $e) {
            throw new UnusableInput($isCode ? $option : $text, $e->getMessage());
        }
    }
}

<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Exchange\NetworkJson\CrsFrames;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Registry\Registry;

/** The registry as installed on the machine, opened once for all tests. */
final class Systems
{
    private static ?Registry $registry = null;

    public static function registry(): Registry
    {
        return self::$registry ??= Registry::open();
    }

    public static function horizontal(string $code): HorizontalSystem
    {
        return self::registry()->horizontalSystem($code);
    }

    public static function frames(): CrsFrames
    {
        return new CrsFrames(self::registry(...), GridFiles::installed());
    }
}

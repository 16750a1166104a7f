<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use Mensura\Passes\Correction;
use Mensura\Passes\Pass;

/** What a pass is laid onto: a drive as it came, or by the version of its trajectory that is in use. */
final readonly class PassOnto
{
    /**
     * @param int        $cloud      its scan
     * @param Correction $correction its places are corrected by already
     */
    public function __construct(public Pass $pass, public int $cloud, public string $name, public Correction $correction)
    {
    }
}

<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\FeatureSet;
use Mensura\Fault\UnusableInput;

/** Writes features as one kind of file. */
interface FeatureWriter
{
    /**
     * @param string $path of the file; what belongs to it gets the same name with other endings
     *
     * @return list<string> what the kind of file cannot hold, in words
     *
     * @throws UnusableInput where nothing of it can be held
     */
    public function write(FeatureSet $set, string $path): array;
}

<?php

declare(strict_types=1);

namespace Batch\Block;

use Batch\JsonVerb;
use Mensura\Exchange\BlockJson\BlockJsonReader;
use Mensura\Exchange\BlockJson\BlockJsonWriter;
use Mensura\Image\BlockAdjustment;
use Mensura\Image\UsedRays;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('block', 'Orientation of images by all their rays at once, mensura-block/1; prints mensura-block-result/1 JSON')]
final class BlockVerb extends JsonVerb
{
    protected static function document(): string
    {
        return 'block, BLOCK.json';
    }

    protected function compute(string $json, InputInterface $input): array
    {
        gc_disable();
        $block = (new BlockJsonReader())->read($json);
        $used = UsedRays::of($block);
        $adjustment = new BlockAdjustment($block, $used);

        return BlockJsonWriter::document($block, $used, $adjustment, $adjustment->run());
    }
}

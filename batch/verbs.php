<?php

declare(strict_types=1);

// The verbs of the batch interface; a new one is its folder and a line here.
return [
    'adjust' => Batch\Adjust\AdjustVerb::class,
    'baseline' => Batch\Baseline\BaselineVerb::class,
    'block' => Batch\Block\BlockVerb::class,
    'cloud' => Batch\Cloud\CloudVerb::class,
    'convert' => Batch\Convert\ConvertVerb::class,
    'deviation' => Batch\Deviation\DeviationVerb::class,
    'level' => Batch\Level\LevelVerb::class,
    'look' => Batch\Look\LookVerb::class,
    'passes' => Batch\Passes\PassesVerb::class,
    'reduce' => Batch\Reduce\ReduceVerb::class,
    'rinex' => Batch\Rinex\RinexVerb::class,
    'section' => Batch\Section\SectionVerb::class,
    'surface' => Batch\Surface\SurfaceVerb::class,
    'transform' => Batch\Transform\TransformVerb::class,
    'traverse' => Batch\Traverse\TraverseVerb::class,
];

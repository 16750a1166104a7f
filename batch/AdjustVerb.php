<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Exchange\NetworkJson\CrsFrames;
use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Reference\Grid\GridFiles;

final class AdjustVerb implements Verb
{
    public static function help(): string
    {
        return <<<'TXT'
            mensura adjust NETWORK.json [--free] [--screen LIMIT] [--preanalysis]

            Least-squares adjustment of a mensura-network/1 file; prints mensura-adjustment/1 JSON.
              --free          inner constraints over the given coordinates; held and weighted control is free
              --screen LIMIT  set aside, one at a time, the largest standardized residual above LIMIT
              --preanalysis   precision and reliability only; values are not needed

            TXT;
    }

    public function run(array $arguments, $out, $err): void
    {
        $options = Arguments::parse($arguments, ['screen'], ['free', 'preanalysis']);
        $file = $options->onlyFile('network');
        $limit = $options->positive('screen');
        try {
            $preanalysis = $options->has('preanalysis');
            $network = (new NetworkJsonReader(new CrsFrames(Reference::registry(...), GridFiles::installed())))->read(Input::contents($file), $preanalysis);
            $progress = static function (string $stage, float $fraction) use ($err): void {
                fwrite($err, \sprintf("%3.0f %% %s\n", 100.0 * $fraction, $stage));
            };
            $result = (new Adjustment($network, $options->has('free'), $preanalysis, $progress))->run($limit);
        } catch (UnusableInput $e) {
            throw str_starts_with($e->getMessage(), $file) ? $e : new UnusableInput($file.('' === $e->where ? '' : ' '.$e->where), $e->reason);
        }
        foreach ($result->warnings as $warning) {
            fwrite($err, "warning: $warning\n");
        }
        try {
            $json = json_encode($result->toArray(), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
        } catch (\JsonException) {
            throw new UnusableInput($file, 'the adjustment leaves the range of numbers; look for a coordinate, an observation or a standard deviation of absurd size');
        }
        fwrite($out, $json."\n");
    }
}

<?php

declare(strict_types=1);

namespace Batch\Adjust;

use Batch\Input;
use Batch\Reference;
use Batch\Verb;
use Mensura\Exchange\NetworkJson\CrsFrames;
use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Reference\Grid\GridFiles;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('adjust', 'Least-squares adjustment of a mensura-network/1 file; prints mensura-adjustment/1 JSON')]
final class AdjustVerb extends Verb
{
    private const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;

    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'the network, NETWORK.json');
        $this->addOption(
            'free',
            null,
            InputOption::VALUE_NONE,
            'inner constraints over the given coordinates; held and weighted control is free',
        );
        $this->addOption(
            'screen',
            null,
            InputOption::VALUE_REQUIRED,
            'set aside, one at a time, the largest standardized residual above this',
        );
        $this->addOption('preanalysis', null, InputOption::VALUE_NONE, 'precision and reliability only; values are not needed');
    }

    protected function answer(InputInterface $input): void
    {
        $file = self::onlyFile($input, 'network');
        $limit = self::positive($input, 'screen');
        try {
            $preanalysis = (bool) $input->getOption('preanalysis');
            $reader = new NetworkJsonReader(new CrsFrames(Reference::registry(...), GridFiles::installed()));
            $network = $reader->read(Input::contents($file), $preanalysis);
            $progress = fn (string $stage, float $fraction) => $this->say(\sprintf('%3.0f %% %s', 100.0 * $fraction, $stage));
            $result = (new Adjustment($network, (bool) $input->getOption('free'), $preanalysis, $progress))->run($limit);
        } catch (UnusableInput $e) {
            throw str_starts_with($e->getMessage(), $file) ? $e : new UnusableInput(
                $file.('' === $e->where ? '' : ' '.$e->where), $e->reason,
            );
        }
        foreach ($result->warnings as $warning) {
            $this->say("warning: $warning");
        }
        try {
            $json = json_encode($result->toArray(), self::JSON);
        } catch (\JsonException) {
            $reason = 'the adjustment leaves the range of numbers; look for a coordinate, an observation or a standard '
                .'deviation of absurd size';
            throw new UnusableInput($file, $reason);
        }
        fwrite($this->out, $json."\n");
    }
}

<?php

declare(strict_types=1);

namespace Batch\Adjust;

use Batch\JsonVerb;
use Batch\Reference;
use Mensura\Exchange\NetworkJson\CrsFrames;
use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\Suspects\Suspect;
use Mensura\Network\Suspects\SuspectSearch;
use Mensura\Reference\Grid\GridFiles;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('adjust', 'Least-squares adjustment of a mensura-network/1 file; prints mensura-adjustment/1 JSON')]
final class AdjustVerb extends JsonVerb
{
    /** A hundredth of a micron in a northing, 1e-11 degrees; the shortest exact form takes three times as long to write. */
    protected const DIGITS = '14';

    protected static function document(): string
    {
        return 'network, NETWORK.json';
    }

    protected function configure(): void
    {
        parent::configure();
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
        $this->addOption(
            'suspects',
            null,
            InputOption::VALUE_OPTIONAL,
            'rank the causes that could explain what does not fit, so many of them (10)',
            false,
        );
        $this->addOption('preanalysis', null, InputOption::VALUE_NONE, 'precision and reliability only; values are not needed');
    }

    protected function compute(string $json, InputInterface $input): array
    {
        $limit = self::positive($input, 'screen');
        $count = self::count($input, 'suspects');
        $preanalysis = (bool) $input->getOption('preanalysis');
        if ($preanalysis && null !== $count) {
            throw new UnusableInput('--suspects', 'asks what does not fit, and with --preanalysis no values are used');
        }
        $reader = new NetworkJsonReader(new CrsFrames(Reference::registry(...), GridFiles::installed()));
        $progress = fn (string $stage, float $fraction) => $this->say(\sprintf('%3.0f %% %s', 100.0 * $fraction, $stage));
        $adjustment = new Adjustment($reader->read($json, $preanalysis), (bool) $input->getOption('free'), $preanalysis, $progress);
        $result = $adjustment->run($limit);
        if (null === $count) {
            return $result->toArray();
        }
        $search = new SuspectSearch($adjustment->solved($result), $progress);

        return $result->toArray() + ['suspects' => array_map(static fn (Suspect $s): array => $s->toArray(), $search->best($count))];
    }

    /** @return ?int null when the option is not there, 10 when it has no value */
    private static function count(InputInterface $input, string $option): ?int
    {
        $value = $input->getOption($option);
        if (false === $value) {
            return null;
        }
        if (null === $value || '' === $value) {
            return 10;
        }
        if (!\is_string($value) || 1 !== preg_match('/^[1-9]\d{0,5}$/', $value)) {
            throw new UnusableInput("--$option", \sprintf('"%s" is not a number of causes', \is_string($value) ? $value : ''));
        }

        return (int) $value;
    }
}

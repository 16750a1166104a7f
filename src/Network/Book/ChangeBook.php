<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Network\Request\BookRequest;
use App\Project\Project;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;

/** Changes how a set-up of the total-station book is reduced and what of it goes into the adjustment. */
final readonly class ChangeBook implements Operation
{
    public function __construct(private ObservationRepository $observations, private BookRequest $request)
    {
    }

    public function name(): string
    {
        return 'change-station-book';
    }

    public function title(): string
    {
        $station = explode('|', $this->request->setup)[0];
        $what = match ($this->request->scope) {
            'all' => 'every set-up',
            'file' => \sprintf('the set-ups of the file that holds %s', $station),
            default => 'set-up '.$station,
        };

        return \sprintf(
            'Reduced %s anew, %s',
            $what,
            'means' === $this->request->mode ? 'means into the adjustment' : 'pointing by pointing',
        );
    }

    public function detail(): array
    {
        return (array) $this->request;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $r = $this->request;
        $setups = StationBook::setups($this->observations->rows($project));
        if (!isset($setups[$r->setup])) {
            throw new UnusableInput('/setup', 'there is no such set-up in this project');
        }
        if (null !== $r->temperature xor null !== $r->pressure) {
            throw new UnusableInput(null === $r->temperature ? '/temperature' : '/pressure', 'weather is a temperature and a pressure');
        }
        if (null !== $r->temperature && null === $r->humidity) {
            throw new UnusableInput('/humidity', 'weather has a humidity too; write 0 for dry air');
        }
        if (null !== $r->temperature && null === $r->referenceRefractivity) {
            throw new UnusableInput(
                '/referenceRefractivity',
                'with weather the reference refractivity of the distance meter must be known; its manual states it',
            );
        }
        $choice = [
            'mode' => $r->mode, 'precision' => $r->precision, 'temperature' => $r->temperature, 'pressure' => $r->pressure,
            'humidity' => $r->humidity, 'prism' => $r->prism,
        ];
        $settings = $project->networkSettings();
        $book = \is_array($settings['book'] ?? null) ? $settings['book'] : [];
        $book['referenceRefractivity'] = $r->referenceRefractivity;
        $book['wavelength'] = $r->wavelength;
        $file = explode('|', $r->setup)[1];
        foreach (array_keys($setups) as $key) {
            if ('all' === $r->scope || $key === $r->setup || 'file' === $r->scope && $file === explode('|', $key)[1]) {
                $book['setups'][$key] = $choice;
            }
        }
        $project->weighBy(['book' => $book] + $settings);
    }
}

<?php

declare(strict_types=1);

namespace App\Baselines\Stations;

use App\Account\UserRepository;
use App\Job\JobContext;
use App\Job\JobHandler;
use App\Survey\FileIntake;
use Mensura\Fault\UnusableInput;

/** Orders files of a reference station, waits for them and takes them into the project. */
final class OrderHandler implements JobHandler
{
    private const MOST_SECONDS = 600;

    public function __construct(
        private readonly StationClient $client,
        private readonly FileIntake $intake,
        private readonly UserRepository $users,
    ) {
    }

    public static function kind(): string
    {
        return 'order-stations';
    }

    public function run(JobContext $context): void
    {
        $p = $context->payload;
        $author = $this->users->find((int) $p['author']) ?? throw new \LogicException('No account.');
        $context->report('ordering', 0.02);
        $answer = $this->client->order([
            'station' => (string) $p['station'], 'from' => (string) $p['from'], 'to' => (string) $p['to'],
            'interval' => (int) $p['interval'],
            'format' => (string) $p['format'],
        ]);
        $order = (string) ($answer['order'] ?? throw new UnusableInput('', 'the reference-station service took no order'));
        $began = time();
        while ('ready' !== ($answer['state'] ?? '')) {
            if (time() - $began > self::MOST_SECONDS) {
                throw new UnusableInput('', 'the order is not ready after ten minutes; order again later');
            }
            $context->report('being prepared by the service', 0.05 + 0.4 * (float) ($answer['progress'] ?? 0.0));
            usleep(250_000);
            $answer = $this->client->state($order);
        }
        $files = array_values(array_map(strval(...), (array) $answer['files']));
        foreach ($files as $i => $name) {
            $context->report(\sprintf('file %d of %d', $i + 1, \count($files)), 0.5 + 0.5 * $i / \count($files));
            $this->intake->take($context->project, $author, basename($name), $this->client->file($order, $name));
        }
        $context->outcome(['files' => $files]);
    }
}

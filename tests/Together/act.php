<?php

declare(strict_types=1);

// One of several processes that work on one database: does one thing at the moment it is told, and says how it went.
// php act.php MOMENT ACTION ARGUMENTS...

use App\Account\User;
use App\Account\UserRepository;
use App\Course\ChangeUnits;
use App\Job\JobRepository;
use App\Job\Lease;
use App\Kernel;
use App\Ledger\Ledger;
use App\Project\Members;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Project\Request\UnitsRequest;
use App\Project\Role;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Component\DependencyInjection\ContainerInterface;

require dirname(__DIR__, 2).'/vendor/autoload.php';
[, $moment, $action] = $argv;
$arguments = array_slice($argv, 3);
$kernel = new Kernel('test', false);
$kernel->boot();
$services = $kernel->getContainer()->get('test.service_container');
assert($services instanceof ContainerInterface);
$users = $services->get(UserRepository::class);
$projects = $services->get(ProjectRepository::class);
$ledger = $services->get(Ledger::class);
$members = $services->get(Members::class);
$jobs = $services->get(JobRepository::class);
assert(
    $users instanceof UserRepository
        && $projects instanceof ProjectRepository
        && $ledger instanceof Ledger
        && $members instanceof Members
        && $jobs instanceof JobRepository,
);
$project = $projects->find(1);
while (microtime(true) < (float) $moment) {
    usleep(100);
}
try {
    switch ($action) {
        case 'found':
            foreach (['ada', 'bo'] as $name) {
                $users->save(new User($name, ucfirst($name)));
            }
            $ada = $users->named('ada') ?? exit('no ada');
            $projects->found(new Project('Office', 'EPSG:25830', 'ellipsoidal', new DateTimeImmutable()), $ada);
            $members->change($projects->find(1) ?? exit('no project'), 'bo', Role::Owner);
            break;
        case 'member':
            $members->change($project ?? exit('no project'), $arguments[0], Role::tryFrom($arguments[1]));
            break;
        case 'units':
            for ($i = 0; $i < (int) $arguments[0]; ++$i) {
                $ledger->carryOut(
                    $project ?? exit('no project'),
                    'Ada',
                    new ChangeUnits(new UnitsRequest('m', 'dms', ($i + (int) $arguments[1]) % 7)),
                );
            }
            break;
        case 'claim':
            echo $jobs->claim($arguments[0], 'w:'.getmypid(), new DateTimeImmutable(), Lease::until(new DateTimeImmutable()))
                ? 'claimed '
                : 'left ';
            break;
        case 'hold':
            $projects->locked(1, static function () use ($arguments): void {
                usleep((int) (1e6 * (float) $arguments[0]));
            });
            break;
        case 'request':
            $client = $services->get('test.client');
            assert($client instanceof KernelBrowser);
            $client->loginUser($users->named('ada') ?? exit('no ada'));
            $client->request('GET', '/api/session');
            $token = json_decode((string) $client->getResponse()->getContent(), true)['token'];
            $client->request(
                'PUT', '/api/projects/1/units', [], [],
                ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token],
                '{"length":"ft","angle":"gon","decimals":2}',
            );
            $response = $client->getResponse();
            echo $response->getStatusCode(), ' ', $response->headers->get('Content-Type'), ' ', $response->headers
                ->get('Retry-After'), ' ', $response->getContent(), ' ';
            break;
    }
    echo 'done';
} catch (Throwable $e) {
    echo $e::class, ': ', $e->getMessage();
}

<?php

declare(strict_types=1);

namespace App\Tests\Project;

use App\Tests\ApiTestCase;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;

final class ProjectTest extends ApiTestCase
{
    public function testANewProjectBelongsToWhoMadeIt(): void
    {
        $made = $this->post('/api/projects', ['name' => ' North field ', 'reference' => 'epsg:25831', 'heights' => 'ellipsoidal'], 201);
        self::assertSame(['North field', 'owner', 'EPSG:25831'], [$made['name'], $made['role'], $made['reference']]);
        self::assertCount(2, $this->get('/api/projects'));
        $this->project = $made['id'];
        $overview = $this->get('');
        self::assertSame('ETRS89 / UTM zone 31N', $overview['referenceName']);
        self::assertSame(
            ['intake', 'reference', 'baselines', 'network', 'terrain', 'clouds', 'checks', 'handover'],
            array_column($overview['stages'], 'key'),
        );
        self::assertSame(
            ['ready', 'done', 'empty', 'empty', 'empty', 'empty', 'empty', 'empty'],
            array_column($overview['stages'], 'state'),
        );
    }

    public function testWhatCannotBeAProjectIsSaid(): void
    {
        self::assertStringStartsWith(
            '/reference: EPSG:99999 is not in the registry (EPSG data set v',
            $this->post('/api/projects', ['name' => 'X', 'reference' => 'EPSG:99999', 'heights' => 'ellipsoidal'], 422)['detail'],
        );
        self::assertStringContainsString(
            'a plane local system has local heights',
            $this->post('/api/projects', ['name' => 'X', 'reference' => 'plane', 'heights' => 'ellipsoidal'], 422)['detail'],
        );
        self::assertStringContainsString(
            'begins with ellipsoidal heights',
            $this->post('/api/projects', ['name' => 'X', 'reference' => 'EPSG:25830', 'heights' => 'local'], 422)['detail'],
        );
        $problem = $this->post('/api/projects', ['name' => '', 'reference' => 'plane', 'heights' => 'wet'], 422);
        self::assertSame(['/name', '/heights'], array_column($problem['errors'], 'pointer'));
    }

    public function testSystemsAreFoundByWords(): void
    {
        self::assertSame(
            ['EPSG:25830', 'EPSG:32630'],
            \array_slice(array_column($this->get('/api/systems?q=utm+30'), 'reference'), 0, 2),
            'The datums GNSS positions come in stand first.',
        );
        self::assertSame(['EPSG:32735'], array_column($this->get('/api/systems?q=32735'), 'reference'));
        self::assertSame([], $this->get('/api/systems?q=qqqqq'));
    }

    public function testTheReferenceIsStatedAndUndone(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'], 200);
        self::assertSame('EPSG:25829', $this->get('')['reference']);
        $this->post('/ledger/1/undo');
        self::assertSame('EPSG:25830', $this->get('')['reference']);
    }

    public function testSearchFindsEverythingByName(): void
    {
        $this->acceptDemoFiles();
        $kinds = static fn (array $hits): array => array_values(array_unique(array_column($hits, 'kind')));
        self::assertSame(['point', 'observation'], $kinds($this->get('/search?q=KT04')));
        self::assertSame(['file'], $kinds($this->get('/search?q=pit-topo')));
        self::assertContains('KT03/2 → KT07', array_column($this->get('/search?q=KT03/2'), 'label'));
        self::assertSame([], $this->get('/search?q='.urlencode('%_\\')));
    }

    public function testUnitsAreChecked(): void
    {
        self::assertSame(
            ['/length', '/angle', '/decimals'],
            array_column($this->call('PUT', '/units', ['length' => 'cubit', 'angle' => 'mil', 'decimals' => 99], 422)['errors'], 'pointer'),
        );
    }

    public function testTheTypesOfTheInterfaceAgreeWithTheClasses(): void
    {
        self::assertNotNull(self::$kernel);
        $tester = new CommandTester((new Application(self::$kernel))->find('mensura:types'));
        self::assertSame(0, $tester->execute(['--check' => true]), $tester->getDisplay());
    }

    public function testAccountsAreMadeWithLongPasswordsOnly(): void
    {
        self::assertNotNull(self::$kernel);
        $tester = new CommandTester((new Application(self::$kernel))->find('mensura:user'));
        $tester->setInputs(['short']);
        self::assertSame(2, $tester->execute(['username' => 'new', 'name' => 'New']));
        $tester->setInputs(['long enough for this']);
        self::assertSame(0, $tester->execute(['username' => 'new', 'name' => 'New']));
        self::assertStringNotContainsString('long enough for this', $tester->getDisplay());
        self::assertSame(1, (int) $this->database()->fetchOne("SELECT COUNT(*) FROM account WHERE username = 'new'"));
    }
}

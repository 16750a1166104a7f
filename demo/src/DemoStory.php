<?php

declare(strict_types=1);

namespace Demo;

use App\Baselines\BaselineMaker;
use App\Baselines\Pair as BaselinePair;
use App\Baselines\Pairs;
use App\Baselines\ProcessingSettings;
use App\Checks\CheckPoint\CheckPointMaker;
use App\Checks\CheckPoint\CheckPointSettings;
use App\Checks\DeviationMaker;
use App\Checks\DeviationSettings;
use App\Clouds\CloudMaker;
use App\Clouds\CloudSettings;
use App\Clouds\Pass\DriveFiles;
use App\Clouds\Pass\PassMaker;
use App\Clouds\Pass\PassSettings;
use App\Design\CloudFiles;
use App\Design\DesignFiles;
use App\Export\Exporter;
use App\HandOver\Catalogue\CatalogueDefinition;
use App\HandOver\Catalogue\CatalogueExport;
use App\HandOver\Catalogue\CatalogueRepository;
use App\HandOver\Kept\Define;
use App\HandOver\Package\PackageDefinition;
use App\HandOver\Package\PackageExport;
use App\HandOver\Package\PackageRepository;
use App\HandOver\Sheet\SavedViewRepository;
use App\HandOver\Sheet\SheetDefinition;
use App\HandOver\Sheet\SheetPdf;
use App\HandOver\Sheet\SheetRepository;
use App\HandOver\Sheet\ViewDefinition;
use App\Ledger\Ledger;
use App\Ledger\LedgerEntryRepository;
use App\Network\Adjuster;
use App\Network\Book\ChangeBook;
use App\Network\Book\StationBook;
use App\Network\Chosen;
use App\Network\Level\LevelOperations;
use App\Network\NetworkOperations;
use App\Network\Request\BookRequest;
use App\Network\Request\LevelRunRequest;
use App\Network\Request\LevelSettingsRequest;
use App\Project\Project;
use App\Reference\Keep;
use App\Reference\ReferenceOperations;
use App\Survey\ObservationRepository;
use App\Survey\PointRepository;
use App\Terrain\DefinedLine;
use App\Terrain\DefineSurface;
use App\Terrain\Section\AlignmentFiles;
use App\Terrain\Section\SectionMaker;
use App\Terrain\Section\SectionSettings;
use App\Terrain\Selection;
use App\Terrain\Surface;
use App\Terrain\SurfaceDefinition;
use App\Terrain\SurfaceMaker;
use App\Terrain\SurfaceRepository;
use App\Terrain\TerrainOperations;
use App\Terrain\Volume\VolumeMaker;
use App\Terrain\Volume\VolumeSettings;
use Mensura\Reference\Localization\Choices;
use Mensura\Reference\Localization\Fitter;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\Pair;

/** What the demo surveyor did with the files: adjusted, set blunders aside, fitted the site grid, built a surface, handed over. */
final class DemoStory
{
    public function __construct(
        private readonly PointRepository $points,
        private readonly ObservationRepository $observations,
        private readonly NetworkOperations $network,
        private readonly LevelOperations $levels,
        private readonly ReferenceOperations $reference,
        private readonly TerrainOperations $terrain,
        private readonly Ledger $ledger,
        private readonly Adjuster $adjuster,
        private readonly SurfaceMaker $surfaces,
        private readonly Exporter $exporter,
        private readonly Pairs $pairs,
        private readonly BaselineMaker $baselines,
        private readonly DesignFiles $designs,
        private readonly DeviationMaker $deviations,
        private readonly CheckPointMaker $checks,
        private readonly CloudFiles $clouds,
        private readonly CloudMaker $cloudMaker,
        private readonly DriveFiles $drives,
        private readonly PassMaker $passes,
        private readonly VolumeMaker $volumes,
        private readonly SectionMaker $sections,
        private readonly AlignmentFiles $alignments,
        private readonly SurfaceRepository $defined,
        private readonly PackageRepository $packages,
        private readonly SavedViewRepository $views,
        private readonly SheetRepository $sheets,
        private readonly CatalogueRepository $catalogues,
        private readonly LedgerEntryRepository $entries,
    ) {
    }

    public function tell(Project $project, string $author, string $marks): void
    {
        $this->ledger->carryOut($project, $author, $this->roadAsMeans($project));
        // Two of the four planted blunders are found and set aside already; two are left to find.
        $this->adjuster->run($project, $author);
        foreach ([
            ['vector', 'KT01', 'KT08', 'antenna height of session S3 was read wrong'],
            ['zenith', 'KT10', 'KT06', 'target height does not agree with round 2'],
        ] as [$kind, $from, $to, $reason]) {
            $blunder = $this->observations->between($project, $kind, $from, $to) ?? throw new \LogicException('The blunder is gone.');
            $this->ledger->carryOut($project, $author, $this->network->setAside([new Chosen($blunder->id(), null)], $reason));
            $this->adjuster->run($project, $author);
        }
        $this->ledger->carryOut($project, $author, $this->network->accept());
        $this->levels($project, $author);
        $this->ledger->carryOut($project, $author, $this->siteGrid($project, $marks));
        $surface = $this->pit($project);
        $this->ledger->carryOut($project, $author, $surface);
        $this->surfaces->make($project, $author, $surface->id());
        $pit = new VolumeSettings('pit to 225', $surface->id(), VolumeSettings::ELEVATION, elevation: 225.0);
        $this->volumes->make($project, $author, null, $pit);
        $this->heap($project, $author);
        $this->yard($project, $author);
        $this->passes($project, $author);
        $this->sessions($project, $author);
        $this->slab($project, $author);
        $this->exporter->export($project, $author, 'csv', []);
        $this->exporter->export($project, $author, 'dxf', [$surface->id()]);
        $this->exporter->export($project, $author, 'pdf', []);
        $this->exporter->export($project, $author, 'volume-pdf', [2]);
        $this->package($project, $author);
        $this->sheet($project, $author);
        $this->catalogue($project, $author);
    }

    /** The scan of the yard, its noise and ground found; the ground alone. */
    private function yard(Project $project, string $author): void
    {
        $scan = array_column($this->clouds->of($project), 'id', 'name')[Yard::SCAN];
        $yard = $this->cloudMaker->make($project, $author, null, new CloudSettings('yard', [$scan], noise: true, ground: true));
        $this->cloudMaker->make($project, $author, null, new CloudSettings('yard, ground', [], [$yard], classes: [2]));
    }

    /** The way down registered to marks on the pavement, the way up laid onto it. */
    private function passes(Project $project, string $author): void
    {
        $ways = array_column($this->drives->trajectories($project), 'id', 'name');
        $scans = array_column($this->clouds->of($project), 'id', 'name');
        $made = new Drives();
        $down = $this->passes->make($project, $author, null, new PassSettings(
            'village, down', $ways[Drives::DOWN], $scans[Drives::DOWN_SCAN], targets: $made->sightings(Drives::DOWN),
        ));
        $this->passes->make($project, $author, null, new PassSettings(
            'village, up', $ways[Drives::UP], $scans[Drives::UP_SCAN], referencePass: $down, targets: $made->sightings(Drives::UP),
        ));
    }

    /** A plan of the heap at 1:500, drawn. */
    private function sheet(Project $project, string $author): void
    {
        $june = array_column(array_map(
            static fn (Surface $s): array => ['id' => $s->id(), 'name' => $s->name()], $this->defined->of($project),
        ), 'id', 'name')['Heap, June'];
        $file = array_column($this->designs->drawings($project), 'id', 'name')[SiteLines::FILE];
        $colours = array_combine(SiteLines::LAYERS, ['teal', 'amber', 'blue', 'grey']);
        $view = new Define($this->views, $this->entries, 'heap in June', ViewDefinition::fromArray([
            'roles' => ['control', 'adjusted', 'check'], 'surfaces' => [['id' => $june, 'contours' => true, 'lines' => true]],
            'layers' => array_map(
                static fn (string $l): array => ['file' => $file, 'layer' => $l, 'colour' => $colours[$l]], SiteLines::LAYERS,
            ),
            'screenOnly' => ['FENCE'],
        ]));
        $this->ledger->carryOut($project, $author, $view);
        $sheet = new Define($this->sheets, $this->entries, 'heap, plan', SheetDefinition::fromArray([
            'size' => 'A3', 'windows' => [[
                'view' => $view->id(), 'x' => 15.0, 'y' => 15.0, 'width' => 390.0, 'height' => 222.5, 'scale' => 500.0, 'e' => Heap::EAST,
                'n' => Heap::NORTH,
            ]],
            'fields' => [
                'title' => 'Spoil heap, June', 'number' => 'KT-017', 'drawn' => 'Demo Surveyor', 'date' => '2031-06-04',
                'company' => "Tarn Survey Office (made up)\n1 Shore Lane, Kestrel",
            ],
            'revisions' => [['mark' => 'A', 'date' => '2031-06-04', 'text' => 'first issue']],
        ]));
        $this->ledger->carryOut($project, $author, $sheet);
        $this->exporter->export($project, $author, SheetPdf::KEY, [$sheet->id()]);
    }

    /** What is collected about the works, first version. */
    private function catalogue(Project $project, string $author): void
    {
        $state = ['name' => 'state', 'kind' => 'choice', 'options' => ['good', 'worn', 'broken'], 'default' => 'good', 'required' => true];
        $day = ['name' => 'seen on', 'kind' => 'date'];
        $catalogue = new Define($this->catalogues, $this->entries, 'site inventory', CatalogueDefinition::fromArray([
            'scope' => 'What stands about the works.', 'types' => [
                [
                    'code' => 'HYDRANT', 'alias' => 'Hydrant', 'kind' => 'point', 'symbol' => 'circle', 'colour' => '#c0392b',
                    'positions' => 10, 'solution' => 'carrier', 'accuracy' => 0.02, 'attributes' => [
                        $state, $day,
                        [
                            'name' => 'bore', 'kind' => 'number', 'least' => 50, 'most' => 200, 'decimals' => 0, 'number' => 80,
                            'unit' => 'mm',
                        ],
                    ],
                ],
                [
                    'code' => 'FENCE', 'alias' => 'Fence', 'kind' => 'line', 'style' => 'dashed', 'colour' => '#6b7280',
                    'logging' => 'distance', 'every' => 5,
                    'attributes' => [$state],
                ],
                [
                    'code' => 'CREST', 'alias' => 'Crest of the pit', 'kind' => 'area', 'colour' => '#8a6d3b',
                ],
                ['code' => 'TOE', 'alias' => 'Toe of the pit', 'kind' => 'area', 'style' => 'dashed', 'colour' => '#8a6d3b'],
                [
                    'code' => 'STORE', 'alias' => 'Store', 'kind' => 'area', 'colour' => '#b8860b', 'positions' => 3,
                    'attributes' => [['name' => 'of what', 'kind' => 'text', 'length' => 40, 'required' => true], $day],
                ],
            ],
        ]));
        $this->ledger->carryOut($project, $author, $catalogue);
        $this->exporter->export($project, $author, CatalogueExport::KEY, [$catalogue->id()]);
    }

    /** All that the machine on the heap needs. */
    private function package(Project $project, string $author): void
    {
        $file = array_column($this->designs->drawings($project), 'id', 'name')[SiteLines::FILE];
        $colours = array_combine(SiteLines::LAYERS, ['teal', 'amber', 'blue', 'background']);
        $layer = static fn (string $layer): array => ['file' => $file, 'layer' => $layer, 'colour' => $colours[$layer]];
        $road = array_column($this->alignments->of($project), 'file', 'name')[HaulRoad::NAME];
        $define = new Define($this->packages, $this->entries, 'heap, phase 2', PackageDefinition::fromArray([
            'surfaces' => array_map(static fn (Surface $s): int => $s->id(), $this->defined->of($project)),
            'roles' => ['control', 'adjusted', 'check'], 'layers' => array_map($layer, SiteLines::LAYERS),
            'alignments' => [['file' => $road, 'name' => HaulRoad::NAME]],
        ]));
        $this->ledger->carryOut($project, $author, $define);
        $this->exporter->export($project, $author, PackageExport::KEY, [$define->id()]);
    }

    /** The slab against its design along the normal; the low corner and the pillar are left to be found. */
    private function slab(Project $project, string $author): void
    {
        $design = array_column($this->designs->of($project), 'id', 'name')[Slab::DESIGN];
        $this->deviations->make($project, $author, null, new DeviationSettings(
            'slab B2', DeviationSettings::DESIGN, 'normal', '2031-05-04', [Slab::CODE], design: $design, ignore: 0.3,
        ));
    }

    /** All baselines processed once; the receiver that left its mark, and the marker typed wrong, are left to be found. */
    private function sessions(Project $project, string $author): void
    {
        $all = array_map(static fn (BaselinePair $p): array => [$p->base->id(), $p->rover->id()], $this->pairs->of($project));
        $this->baselines->make($project, $author, $all, new ProcessingSettings(), static function (): void {});
    }

    /** The traverse was read in both faces: its means go into the adjustment, free of what is not true in the instrument. */
    private function roadAsMeans(Project $project): ChangeBook
    {
        foreach (StationBook::setups($this->observations->rows($project)) as $key => $setup) {
            if ('T2' === $setup->station) {
                return new ChangeBook($this->observations, new BookRequest((string) $key, 'means', 'a-priori', scope: 'file'));
            }
        }
        throw new \LogicException('The traverse is gone.');
    }

    /** The levelling book: one of its lines does not close, and is left to be found. */
    private function levels(Project $project, string $author): void
    {
        $benchmarks = [];
        foreach (TruthModel::BENCHMARKS as $id => $h) {
            $benchmarks[] = ['id' => $id, 'h' => $h];
        }
        $settings = new LevelSettingsRequest(0.012, 'km', 'length', false, 0.13, 0.0015, 0.0, 0.0, 20.0, 20.0, $benchmarks);
        $this->ledger->carryOut($project, $author, $this->levels->settings($settings, null));
        foreach ((new Generator(new TruthModel()))->levels() as $run) {
            $this->ledger->carryOut($project, $author, $this->levels->keep(new LevelRunRequest($run['name'], 'BF', $run['rows']), null));
        }
    }

    /** The localization of the site grid over the marks known on both sides, the wrong one among them. */
    private function siteGrid(Project $project, string $marks): Keep
    {
        $pairs = [];
        foreach (\array_slice(explode("\n", trim($marks)), 2) as $line) {
            [$name, $e, $n, $h] = explode(',', $line);
            $p = $this->points->named($project, $name) ?? throw new \LogicException("$name has no coordinates.");
            $pairs[] = new Pair($name, (float) $e, (float) $n, (float) $h, (float) $p->e, (float) $p->n, (float) $p->h);
        }
        $choices = new Choices();
        $fit = Fitter::fit($pairs, $choices);
        $file = LocalizationJson::toArray('Site grid', TruthModel::SYSTEM, 'ellipsoidal', $fit->localization, $choices, $pairs, $fit);
        $text = json_encode($file, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_PRETTY_PRINT);

        return $this->reference->keepLocalization(
            'Site grid',
            $text,
            \sprintf('Fitted the localization Site grid: %d pairs', \count($pairs)),
        );
    }

    private function pit(Project $project): DefineSurface
    {
        $lines = [];
        foreach (['CREST', 'TOE'] as $code) {
            $names = $this->points->namesCoded($project, $code);
            $lines[] = new DefinedLine('breakline', strtolower($code), [...$names, $names[0]], []);
        }
        $limit = [[493536.0, 6028006.0], [493704.0, 6028006.0], [493704.0, 6028112.0], [493536.0, 6028112.0]];
        $lines[] = new DefinedLine('boundary', 'works limit', [], $limit);

        return $this->terrain->define('Borrow pit', new SurfaceDefinition(
            new Selection(['surveyed'], ['CREST', 'TOE', 'GROUND']), $lines, interval: 0.5,
        ));
    }

    /** Two surveys of the heap, compared, and the heap on its own edge; the peg that stands proud is left to be found. */
    private function heap(Project $project, string $author): void
    {
        $ids = [];
        foreach (['Heap, May' => 'HA-*', 'Heap, June' => 'HB-*'] as $name => $pattern) {
            $surface = $this->terrain->define(
                $name,
                new SurfaceDefinition(new Selection(['surveyed'], [Heap::CODE], $pattern), maxEdge: 8.0, interval: 0.5, smooth: true),
            );
            $this->ledger->carryOut($project, $author, $surface);
            $this->surfaces->make($project, $author, $surface->id());
            $ids[] = $surface->id();
        }
        [$may, $june] = $ids;
        $this->volumes->make($project, $author, null, new VolumeSettings('heap, May to June', $june, VolumeSettings::SURFACE, $may));
        $this->volumes->make($project, $author, null, new VolumeSettings('heap in June', $june, VolumeSettings::RIM));
        $scan = array_column($this->clouds->of($project), 'id', 'name')[Heap::SCAN];
        $this->checks->make($project, $author, null, new CheckPointSettings('heap in June', CheckPointSettings::SURFACE, 'CP*', $june));
        $this->checks->make(
            $project, $author, null, new CheckPointSettings('scan of the heap', CheckPointSettings::CLOUD, 'CP*', cloud: $scan),
        );
        $through = [[Heap::EAST - 19.0, Heap::NORTH - 12.0], [Heap::EAST + 12.0, Heap::NORTH + 19.0]];
        $this->sections->make($project, $author, null, new SectionSettings('through the heap', $ids, $through, offset: 1.0));
        $road = array_column($this->alignments->of($project), 'file', 'name')[HaulRoad::NAME];
        $all = array_map(static fn (Surface $s): int => $s->id(), $this->defined->of($project));
        $this->sections->make($project, $author, null, new SectionSettings(
            'along the haul road', $all, file: $road, alignment: HaulRoad::NAME, offset: 2.0, every: 20.0, half: 8.0,
        ));
    }
}

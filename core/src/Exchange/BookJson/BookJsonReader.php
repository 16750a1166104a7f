<?php

declare(strict_types=1);

namespace Mensura\Exchange\BookJson;

use Mensura\Exchange\Json\JsonObject;
use Mensura\Fault\UnusableInput;
use Mensura\TotalStation\Pointing;
use Mensura\TotalStation\ReductionSettings;
use Mensura\TotalStation\Setup;
use Mensura\TotalStation\Weather;

/** Reads a total-station book, mensura-book/1. Every fault names its place as a JSON path. */
final class BookJsonReader
{
    private const TALLEST = 100.0;

    /**
     * @return array{ReductionSettings, list<Setup>}
     *
     * @throws UnusableInput
     */
    public function read(string $json): array
    {
        $document = JsonObject::document($json, 'mensura-book/1');
        $s = $document->object('settings');
        $settings = new ReductionSettings(
            $s->within('refraction', -20.0, 20.0) ?? 0.13, $s->within('earthRadius', 1e6, 1e8, 'm') ?? 6371000.0,
            $s->within('wavelength', 0.2, 20.0, 'micrometres') ?? 0.658, $s->within('referenceRefractivity', 0.0, 1000.0),
        );
        $setups = [];
        foreach ($document->objects('setups') as $setup) {
            $id = $setup->name('id');
            if (isset($setups["s$id"])) {
                throw $setup->fault('id', \sprintf('setup "%s" is there twice; number them apart', $id));
            }
            $pointings = [];
            foreach ($setup->objects('pointings') as $pointing) {
                $pointings[] = $this->pointing($pointing);
            }
            $setups["s$id"] = new Setup(
                $id, $setup->name('station'), $this->height($setup, 'hi'),
                $setup->has('weather') ? $this->weather($setup->object('weather'), $settings) : null, $pointings,
            );
        }

        return [$settings, array_values($setups)];
    }

    private function height(JsonObject $o, string $key): float
    {
        return $o->within($key, -self::TALLEST, self::TALLEST, 'm') ?? throw $o->fault($key, 'is missing; write 0 where there is none');
    }

    private function weather(JsonObject $w, ReductionSettings $settings): Weather
    {
        if (null === $settings->referenceRefractivity) {
            throw new UnusableInput('settings.referenceRefractivity', \sprintf(
                'is missing; with %s the distance meter\'s own refractivity must be known', $w->path,
            ));
        }

        return new Weather(
            $w->within('temperature', -90.0, 70.0, 'degrees Celsius') ?? $w->required('temperature'),
            $w->within('pressure', 100.0, 1200.0, 'hPa') ?? $w->required('pressure'),
            $w->within('humidity', 0.0, 100.0, 'percent') ?? throw $w->fault('humidity', 'is missing; write 0 for dry air'),
        );
    }

    private function pointing(JsonObject $p): Pointing
    {
        $face = $p->required('face');
        if (1.0 !== $face && 2.0 !== $face) {
            throw $p->fault('face', \sprintf('is %s; it must be 1 or 2', $face));
        }
        $zenith = $p->required('zenith');
        $least = 1.0 === $face ? 0.0 : 180.0;
        if ($zenith <= $least || $zenith >= $least + 180.0) {
            throw $p->fault('zenith', \sprintf(
                'a zenith angle of %s degrees is not of face %d, which reads between %d and %d; is it a vertical angle, or in gon?',
                $zenith, $face, $least, $least + 180.0,
            ));
        }

        return new Pointing(
            $p->name('round'), (int) $face, $p->name('target'), $this->height($p, 'ht'),
            $p->within('direction', -720.0, 720.0, 'degrees') ?? $p->required('direction'), $zenith, $p->positive('distance'),
            $p->within('prism', -10.0, 10.0, 'm') ?? 0.0,
        );
    }
}

<?php

declare(strict_types=1);

namespace App\Api;

use App\Store\FileStore;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** A document of the store as an answer. It lies there as it travels, compressed: nothing of it is read on the way. */
final class StoredJson
{
    public static function answer(FileStore $store, string $sha256, Request $request): Response
    {
        $packed = $store->get($sha256);
        $headers = ['Content-Type' => 'application/json', 'Vary' => 'Accept-Encoding'];

        return \in_array('gzip', $request->getEncodings(), true)
            ? new Response($packed, 200, $headers + ['Content-Encoding' => 'gzip'])
            : new Response((string) gzdecode($packed), 200, $headers);
    }
}
